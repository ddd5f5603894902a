import type { Part, Words } from '../captions/compose';
import { TEXT_FIELDS } from '../rulesheets/types';

/** The texts for those who make a post, which are never sent. */
export const NOTE_FIELDS = ['script', 'coverIdeas', 'agenda'] as const;
export type NoteField = (typeof NOTE_FIELDS)[number];

/** Every single text of a post: those that are sent, then hashtags and link, then the notes for its making. */
export const WRITTEN_FIELDS = [...TEXT_FIELDS, 'hashtags', 'link', ...NOTE_FIELDS] as const;
export type WrittenField = (typeof WRITTEN_FIELDS)[number];

/** All that is written for a post. */
export type WrittenWords = Record<WrittenField, string> & { parts: readonly Part[] };

/** The notes that posts of a format are made from. */
export const notesOf = (format: string): readonly NoteField[] => NOTES[format] ?? [];

const NOTES: Record<string, readonly NoteField[]> = {
  shortVideo: ['script', 'coverIdeas'],
  longVideo: ['script', 'coverIdeas'],
  live: ['agenda'],
};

/** What people read for each note. */
export const NOTE_LABELS: Record<NoteField, string> = {
  script: 'Script',
  coverIdeas: 'Cover ideas',
  agenda: 'Agenda',
};

/** What people read for each text, where a rule sheet calls it nothing else. */
export const WRITTEN_LABELS: Record<WrittenField, string> = {
  headline: 'Title',
  preheader: 'Preheader',
  caption: 'Caption',
  keywords: 'Keywords',
  firstComment: 'First comment',
  hashtags: 'Hashtags',
  link: 'Link',
  ...NOTE_LABELS,
};

/** The words of a post, whatever else it holds; a text it lacks is empty. */
export function writtenOf(post: Words & Partial<Record<NoteField, string>>): WrittenWords {
  const texts = Object.fromEntries(WRITTEN_FIELDS.map((field) => [field, post[field] ?? '']));
  return { ...(texts as Record<WrittenField, string>), parts: post.parts ?? [] };
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
