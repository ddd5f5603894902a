import { ofEachText, type TextFieldName, type WrittenField } from '@/core/posts/texts';

/** The column of `posts` that holds a text: its name in small letters. */
export const columnOf = (name: WrittenField): string => name.replace(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`);

/** Where each text of a post stands, by the name its table goes by. */
export const textColumns = (posts: string): Record<WrittenField, string> =>
  ofEachText((_text, name) => `${posts}.${columnOf(name)}`);

/** Where those of these texts stand. */
export const columnsOfTexts = <Name extends WrittenField | TextFieldName>(
  posts: string,
  names: readonly Name[],
): Record<Name, string> =>
  Object.fromEntries(names.map((name) => [name, `${posts}.${columnOf(name)}`])) as Record<Name, string>;
