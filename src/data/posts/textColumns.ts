import type { PieceField } from '@/core/pieces/texts';
import type { WrittenField } from '@/core/posts/texts';

/** The column that holds a text of a post or piece: its name in small letters. */
export const columnOf = (name: WrittenField | PieceField): string =>
  name.replace(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`);

/** Where these texts of a post stand, by the name its table goes by. */
export const columnsOfTexts = <Name extends WrittenField>(
  posts: string,
  names: readonly Name[],
): Record<Name, string> =>
  Object.fromEntries(names.map((name) => [name, `${posts}.${columnOf(name)}`])) as Record<Name, string>;
