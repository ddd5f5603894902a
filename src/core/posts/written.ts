import type { Part, Words } from '../captions/compose';
import { fieldRule, type Format, type RuleSheet } from '../rulesheets/types';
import {
  NOTE_FIELDS,
  ofEachText,
  postText,
  WRITTEN_FIELDS,
  type NoteField,
  type TextFieldName,
  type WrittenField,
} from './texts';

export { WRITTEN_FIELDS, type WrittenField } from './texts';

/** All that is written for a post. */
export type WrittenWords = Record<WrittenField, string> & { parts: readonly Part[] };

/** The notes that posts of a format are made from. */
export const notesOf = (format: string): readonly NoteField[] =>
  NOTE_FIELDS.filter((name) => postText(name).formats?.includes(format));

/** Whether a post of a format has a text on a network: that it is sent there, or what such posts are made from. */
export function isTextOf(name: WrittenField, sheet: RuleSheet, format: Format): boolean {
  const { use } = postText(name);
  if (use === 'note') return notesOf(format).includes(name as NoteField);
  if (use === 'sent') return fieldRule(sheet, name as TextFieldName) !== undefined;
  return name !== 'hashtags' || sheet.hashtagLimit !== 0;
}

/** What people read for each text, where a rule sheet calls it nothing else. */
export const WRITTEN_LABELS: Record<WrittenField, string> = ofEachText(({ label }) => label);

/** The words of a post, whatever else it holds; a text it lacks is empty. */
export function writtenOf(post: Words & Partial<Record<NoteField, string>>): WrittenWords {
  const texts = ofEachText((_text, name) => post[name] ?? '');
  return { ...texts, parts: post.parts ?? [] };
}

/** The fields in which two states of a post's words differ; `parts` where any part does. */
export function differingFields(one: WrittenWords, other: WrittenWords): (WrittenField | 'parts')[] {
  const fields: (WrittenField | 'parts')[] = WRITTEN_FIELDS.filter((field) => one[field] !== other[field]);
  return partsKey(one.parts) === partsKey(other.parts) ? fields : [...fields, 'parts'];
}

const partsKey = (parts: readonly Part[]): string =>
  JSON.stringify(parts.map(({ text, pictureId }) => [text, pictureId]));

/** How long after its last save a stretch of writing is still the same one, in milliseconds. */
export const STRETCH_MS = 10 * 60_000;
