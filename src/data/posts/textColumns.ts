import type { WrittenField } from '@/core/posts/texts';

/** The column of `posts` that holds a text: its name in small letters. */
export const columnOf = (name: WrittenField): string => name.replace(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`);

/** Where these texts of a post stand, by the name its table goes by. */
export const columnsOfTexts = <Name extends WrittenField>(
  posts: string,
  names: readonly Name[],
): Record<Name, string> =>
  Object.fromEntries(names.map((name) => [name, `${posts}.${columnOf(name)}`])) as Record<Name, string>;
