import type { Part } from '../captions/compose';
import { TEXT_LIMITS } from '../pieces/piece';
import { accept, refuse, type Result } from '../refusal';
import type { RuleSheet } from '../rulesheets/types';
import { cleanText } from '../text/clean';
import { WRITTEN_FIELDS, WRITTEN_LABELS, type WrittenField, type WrittenWords } from './written';

/** Parts a post keeps at the most. */
const PARTS_OF_POST = 100;
/** Pictures a post keeps at the most. */
const PICTURES_OF_POST = 40;

const number = new Intl.NumberFormat('en-GB');

/** What a field is called on a channel with that rule sheet. */
const fieldLabel = (sheet: RuleSheet, field: WrittenField): string =>
  sheet.fields.find(({ name }) => name === field)?.label ?? WRITTEN_LABELS[field];

/**
 * Reads texts of a post as they are kept: cleaned, and refused where they are longer than Bimlo keeps. Every road that
 * writes words comes through here.
 */
export function readWords<W extends Partial<WrittenWords>>(words: W, sheet: RuleSheet): Result<W> {
  const read: W = { ...words };
  for (const field of WRITTEN_FIELDS) {
    const typed = words[field];
    if (typed === undefined) continue;
    const text = cleanText(typed);
    const long = tooLong(text, TEXT_LIMITS[field], fieldLabel(sheet, field), field);
    if (long) return long;
    Object.assign(read, { [field]: text });
  }
  if (words.parts === undefined) return accept(read);
  const parts = readParts(words.parts);
  return parts.ok ? accept({ ...read, parts: parts.value }) : parts;
}

function readParts(parts: readonly Part[]): Result<Part[]> {
  if (parts.length > PARTS_OF_POST) return refuse('badParts', `A post keeps ${PARTS_OF_POST} parts at most.`, 'parts');
  if (new Set(parts.map(({ id }) => id)).size < parts.length)
    return refuse('badParts', 'A part is there twice.', 'parts');
  const shown = parts.flatMap(({ pictureId }) => (pictureId === null ? [] : [pictureId]));
  if (new Set(shown).size < shown.length) return refuse('badParts', 'Two parts show the same picture.', 'parts');
  const read = parts.map((part) => ({ ...part, text: cleanText(part.text) }));
  for (const { id, text } of read) {
    const long = tooLong(text, TEXT_LIMITS.part, 'A part', `part:${id}`);
    if (long) return long;
  }
  return accept(read);
}

/** Reads the pictures of a post: not too many, each with an alt text that can be kept. */
export function readPictures<P extends { alt: string }>(pictures: readonly P[]): Result<P[]> {
  if (pictures.length > PICTURES_OF_POST)
    return refuse(
      'tooManyPictures',
      `A post keeps ${PICTURES_OF_POST} pictures at most. Remove one first.`,
      'pictures',
    );
  const read = pictures.map((picture) => ({ ...picture, alt: cleanText(picture.alt).trim() }));
  for (const { alt } of read) {
    const long = tooLong(alt, TEXT_LIMITS.alt, 'Alt text', 'alt');
    if (long) return long;
  }
  return accept(read);
}

/** The refusal of a text longer than Bimlo keeps; null for one that is not. `limit` in UTF-16 units. */
export function tooLong(text: string, limit: number, label: string, field: string): Result<never> | null {
  if (text.length <= limit) return null;
  return refuse(
    'textTooLong',
    `${label}: ${number.format(text.length)} characters are more than Bimlo keeps (${number.format(limit)}). Shorten it.`,
    field,
  );
}
