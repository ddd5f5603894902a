import { CARD_KINDS, CARD_LAYOUTS, CARD_SOURCES, readCard, type Card } from '../cards/card';
import { EXTRACT_KINDS, type ExtractKind } from '../extracts/extracts';
import { isCrop, OUT_TYPES, type Recipe } from '../media/fit';
import { readPictures } from '../posts/readPost';
import { BLANK_STEP, readPrep, STEPS_LIMIT, type PrepLine } from '../prep/step';
import { cleanDeep } from '../text/clean';
import { readDate, type Instant, type LocalDate } from '../time/plan';

/** A part of a post as a file of posts holds it: its text, and the number of the picture that it shows, from 1. */
export interface ListedPart {
  text: string;
  /** Null where the file does not say: the part at its place keeps the one it has. */
  picture: number | null;
}

/** A picture of a post as a file of posts holds it. */
export interface ListedPicture extends Recipe {
  /** The name of its file. */
  file: string;
  /** SHA-256 of its bytes, hex; null where the name alone says which file it is. */
  sha256: string | null;
  alt: string;
  /** How it is set, of a picture made from words. */
  card: Card | null;
}

/** A step of a post as a file of posts holds it. */
export interface ListedStep extends Omit<PrepLine, 'ownerId'> {
  /** Who does it, by name; empty for nobody yet. */
  who: string;
  pinned: LocalDate | null;
  doneAt: Instant | null;
  /** Who did it, by name; empty for nobody of this brand. */
  doneBy: string;
}

/** What a post was made from, as a file of posts holds it. */
export interface ListedExtract {
  kind: ExtractKind | 'clip';
  /** As it stands in the text of the piece. */
  text: string;
  /** Its UTF-16 offset there; null where the first place with these words is meant. */
  start: number | null;
}

/** What a file of posts holds of a post as lists. */
export interface Lists {
  parts: ListedPart[];
  media: ListedPicture[];
  steps: ListedStep[];
  extracts: ListedExtract[];
}
export type ListColumn = keyof Lists;
export const LIST_COLUMNS: readonly string[] = ['parts', 'media', 'steps', 'extracts'] satisfies ListColumn[];

/** Entries of a list at the most. */
const MOST: Record<ListColumn, number> = { parts: 100, media: 40, steps: STEPS_LIMIT, extracts: 100 };

/** What a field of an entry may be, and what it is where the entry does not say; one without has to be said. */
interface Field {
  is: (value: unknown) => boolean;
  unsaid?: unknown;
}

const isText = (value: unknown): value is string => typeof value === 'string' && value.length <= 200_000;
const isFlag = (value: unknown): boolean => typeof value === 'boolean';
const isWhole = (value: unknown): boolean => Number.isSafeInteger(value);
const isHash = (value: unknown): boolean => isText(value) && /^[0-9a-f]{64}$/.test(value);
const isInstant = (value: unknown): boolean =>
  isText(value) && /^\d{4}-\d{2}-\d{2}T[\d:.]{5,12}Z$/.test(value) && !Number.isNaN(Date.parse(value));
const isOneOf =
  (...known: readonly string[]) =>
  (value: unknown): boolean =>
    known.includes(value as string);
const orNull =
  (is: (value: unknown) => boolean) =>
  (value: unknown): boolean =>
    value === null || is(value);
const numbers =
  (...names: readonly string[]) =>
  (value: unknown): boolean =>
    isRecord(value) && names.every((name) => Number.isFinite(value[name]));

const CARD: Record<string, Field> = {
  ...{
    ground: { is: isText },
    ink: { is: isText },
    accent: { is: isText },
    width: { is: isWhole },
    height: { is: isWhole },
  },
  ...{ layout: { is: isOneOf(...CARD_LAYOUTS) }, kind: { is: isOneOf(...CARD_KINDS) } },
  ...{ text: { is: isText }, by: { is: isText, unsaid: '' }, picture: { is: orNull(isHash), unsaid: null } },
  follows: { is: orNull(isOneOf(...CARD_SOURCES)), unsaid: null },
};

const FIELDS: { [C in ListColumn]: Record<keyof Lists[C][number], Field> } = {
  parts: { text: { is: isText, unsaid: '' }, picture: { is: orNull(isWhole), unsaid: null } },
  media: {
    ...{
      file: { is: (value) => isText(value) && value !== '' && value.length <= 300 },
      alt: { is: isText, unsaid: '' },
    },
    ...{ sha256: { is: orNull(isHash), unsaid: null }, toMime: { is: orNull(isOneOf(...OUT_TYPES)), unsaid: null } },
    toBytes: { is: (value) => value === null || (isWhole(value) && (value as number) >= 20_000), unsaid: null },
    crop: { is: orNull(numbers('x', 'y', 'width', 'height')), unsaid: null },
    card: { is: orNull((value) => entryOf(CARD, value) !== null), unsaid: null },
  },
  steps: {
    ...{ title: { is: isText }, work: { is: isText, unsaid: BLANK_STEP.work }, who: { is: isText, unsaid: '' } },
    ...{ craft: { is: orNull(isText), unsaid: null }, lead: { is: isWhole, unsaid: BLANK_STEP.lead } },
    ...{ leadIn: { is: isText, unsaid: BLANK_STEP.leadIn }, minutes: { is: orNull(isWhole), unsaid: null } },
    ...{
      note: { is: isText, unsaid: '' },
      needed: { is: isFlag, unsaid: false },
      ticksItself: { is: isFlag, unsaid: false },
    },
    ...{ pinned: { is: orNull(isText), unsaid: null }, doneAt: { is: orNull(isInstant), unsaid: null } },
    doneBy: { is: isText, unsaid: '' },
  },
  extracts: {
    ...{
      kind: { is: isOneOf(...EXTRACT_KINDS, 'clip'), unsaid: 'quote' },
      text: { is: (value) => isText(value) && value !== '' },
    },
    start: { is: orNull(isWhole), unsaid: null },
  },
};

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** An entry with all its fields; null for what is none. What it says beside them is passed over. */
function entryOf(fields: Record<string, Field>, entry: unknown): Record<string, unknown> | null {
  if (!isRecord(entry)) return null;
  const read: Record<string, unknown> = {};
  for (const [name, { is, unsaid }] of Object.entries(fields)) {
    const value = Object.hasOwn(entry, name) ? entry[name] : unsaid;
    if (!is(value)) return null;
    read[name] = value;
  }
  return read;
}

const EXAMPLES: Record<ListColumn, string> = {
  parts: '["One","Two"]',
  media: '[{"file":"dome.jpg","alt":"The dome at dusk"}]',
  steps: '[{"title":"Draw","work":"picture","who":"Ines","lead":2}]',
  extracts: '[{"kind":"quote","text":"The rings are younger."}]',
};

/**
 * Reads a list as a cell holds it, in JSON. What an entry does not say is as with one nobody said anything about. Thousands of
 * cells come at once, so that each is read in microseconds.
 *
 * @returns the list, or why it is none, as a sentence goes on
 * @example readList('parts', '["One","Two"]') // [{ text: 'One', picture: null }, { text: 'Two', picture: null }]
 */
export function readList<C extends ListColumn>(column: C, cell: string): Lists[C] | string {
  if (cell.trim() === '') return [] as unknown as Lists[C];
  let read: unknown;
  try {
    read = cleanDeep(JSON.parse(cell));
  } catch {
    return notAList(column);
  }
  if (!Array.isArray(read)) return notAList(column);
  if (read.length > MOST[column]) return `it has more than ${MOST[column]} ${column}`;
  const entries = read.map((entry) => entryOf(FIELDS[column], column === 'parts' ? partOf(entry) : entry));
  if (!entries.every((entry) => entry !== null)) return notAList(column);
  const list = entries as unknown;
  if (column === 'steps') return readSteps(list as ListedStep[]) as Lists[C] | string;
  if (column === 'media') return readMedia(list as ListedPicture[]) as Lists[C] | string;
  return list as Lists[C];
}

const partOf = (entry: unknown): unknown => (typeof entry === 'string' ? { text: entry } : entry);

const notAList = (column: ListColumn): string =>
  column === 'parts'
    ? `its parts are not a list of texts in JSON, like ${EXAMPLES.parts}`
    : `its ${column} are not a list in JSON, like ${EXAMPLES[column]}`;

/** Steps as they are kept, or why they may not be. */
function readSteps(steps: readonly ListedStep[]): ListedStep[] | string {
  const prep = readPrep(steps.map((step) => ({ ...step, ownerId: null })));
  if (!prep.ok) return prep.refusal.message;
  for (const { pinned } of steps) {
    const day = pinned === null ? null : readDate(pinned);
    if (day && !day.ok) return day.refusal.message;
  }
  return prep.value.map(({ ownerId: _nobody, ...step }) => step);
}

/** Pictures as they are kept, or why they may not be. */
function readMedia(media: readonly ListedPicture[]): ListedPicture[] | string {
  const pictures = readPictures(media);
  if (!pictures.ok) return pictures.refusal.message;
  for (const { file, card, crop } of media) {
    const read = card === null ? null : readCard(card);
    if (read && !read.ok) return read.refusal.message;
    if (crop !== null && !isCrop(crop)) return `the frame of “${file}” does not lie inside the picture`;
  }
  return pictures.value;
}

/** Whether a cell may be a list in JSON, or says that there is none. */
export const looksLikeList = (cell: string): boolean => /^\s*(\[|$)/.test(cell);

/** Writes a list as `readList` reads it; empty for an empty one. */
export function writeList<C extends ListColumn>(column: C, list: Lists[C]): string {
  if (list.length === 0) return '';
  const fields: Record<string, Field> = FIELDS[column];
  const entries = list.map((entry) => {
    const said = Object.entries(entry).filter(([name, value]) => value !== fields[name]!.unsaid || name === 'text');
    return column === 'parts' && said.length === 1 ? (entry as ListedPart).text : Object.fromEntries(said);
  });
  return JSON.stringify(entries);
}
