import { array, boolean, number, object, string, type Schema } from 'yup';
import { readCard, type Card } from '../cards/card';
import { EXTRACT_KINDS, type ExtractKind } from '../extracts/extracts';
import { isCrop, type Recipe } from '../media/fit';
import { BLANK_STEP, readPrep, type PrepLine } from '../prep/step';
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

/** Extracts that a post can have been made from. */
const EXTRACTS_LIMIT = 100;

const text = () => string().strict().max(200_000);
const whole = () => number().strict().integer();
const hex = () => text().matches(/^[0-9a-f]{64}$/);
const share = () => number().strict().min(0).max(1).required();
const orNull = <S extends Schema>(schema: S) => schema.nullable().default(null);

const CROP = orNull(object({ x: share(), y: share(), width: share(), height: share() }).strict());
const CARD = orNull(
  object({
    ...{ ground: text().required(), ink: text().required(), accent: text().required() },
    ...{ width: whole().required(), height: whole().required() },
    layout: text().oneOf(['ruled', 'plate', 'margin']).required(),
    kind: text().oneOf(['quote', 'number', 'point']).required(),
    ...{ text: text().required(), by: text().default('') },
    picture: orNull(hex()),
    follows: orNull(text().oneOf(['headline', 'firstLine'])),
  }).strict(),
);

const SHAPES: Record<ListColumn, Schema> = {
  parts: object({ text: text().default(''), picture: orNull(whole().min(1)) }).strict(),
  media: object({
    file: text().max(300).required(),
    sha256: orNull(hex()),
    alt: text().default(''),
    crop: CROP,
    toMime: orNull(text().oneOf(['image/jpeg', 'image/png', 'image/webp'])),
    toBytes: orNull(whole().min(20_000)),
    card: CARD,
  }).strict(),
  steps: object({
    ...{ title: text().required(), work: text().default(BLANK_STEP.work), who: text().default('') },
    craft: orNull(text()),
    ...{ lead: whole().default(BLANK_STEP.lead), leadIn: text().default(BLANK_STEP.leadIn) },
    ...{ minutes: orNull(whole()), note: text().default(''), needed: boolean().strict().default(false) },
    ...{ ticksItself: boolean().strict().default(false), pinned: orNull(text()) },
    ...{ doneAt: orNull(text().matches(/^\d{4}-\d{2}-\d{2}T[\d:.]+Z$/)), doneBy: text().default('') },
  }).strict(),
  extracts: object({
    kind: text()
      .oneOf([...EXTRACT_KINDS, 'clip'])
      .default('quote'),
    text: text().required(),
    start: orNull(whole().min(0)),
  }).strict(),
};

const EXAMPLES: Record<ListColumn, string> = {
  parts: '["One","Two"]',
  media: '[{"file":"dome.jpg","alt":"The dome at dusk"}]',
  steps: '[{"title":"Draw","work":"picture","who":"Ines","lead":2}]',
  extracts: '[{"kind":"quote","text":"The rings are younger."}]',
};

/**
 * Reads a list as a cell holds it, in JSON. What an entry does not say is as with one nobody said anything about.
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
  const entries = Array.isArray(read) ? read.map((entry) => (column === 'parts' ? partOf(entry) : entry)) : null;
  const shape = array(SHAPES[column].required()).strict();
  if (!entries || !shape.isValidSync(entries)) return notAList(column);
  const list = entries.map((entry) => SHAPES[column].cast(entry, { stripUnknown: true })) as unknown as Lists[C];
  return whyNot(column, list) ?? list;
}

const partOf = (entry: unknown): unknown => (typeof entry === 'string' ? { text: entry } : entry);

const notAList = (column: ListColumn): string =>
  column === 'parts'
    ? `its parts are not a list of texts in JSON, like ${EXAMPLES.parts}`
    : `its ${column} are not a list in JSON, like ${EXAMPLES[column]}`;

/** What is wrong with a list that has its shape; null for nothing. */
function whyNot(column: ListColumn, list: Lists[ListColumn]): string | null {
  if (column === 'steps') {
    const steps = list as ListedStep[];
    const prep = readPrep(steps.map((step) => ({ ...step, ownerId: null })));
    if (!prep.ok) return prep.refusal.message;
    for (const { pinned, doneAt } of steps) {
      const day = pinned === null ? null : readDate(pinned);
      if (day && !day.ok) return day.refusal.message;
      if (doneAt !== null && Number.isNaN(Date.parse(doneAt))) return `“${doneAt}” is no instant`;
    }
  }
  if (column === 'media')
    for (const { file, card, crop } of list as ListedPicture[]) {
      const read = card === null ? null : readCard(card);
      if (read && !read.ok) return read.refusal.message;
      if (crop !== null && !isCrop(crop)) return `the frame of “${file}” does not lie inside the picture`;
    }
  if (column === 'extracts' && list.length > EXTRACTS_LIMIT) return `it has more than ${EXTRACTS_LIMIT} extracts`;
  return null;
}

/** Whether a cell may be a list in JSON, or says that there is none. */
export const looksLikeList = (cell: string): boolean => /^\s*(\[|$)/.test(cell);

/** What an entry says where it says nothing: it is left out of what is written. */
const UNSAID: { [C in ListColumn]: Partial<Lists[C][number]> } = {
  parts: { picture: null },
  media: { alt: '', crop: null, toMime: null, toBytes: null, card: null, sha256: null },
  steps: {
    ...{ who: '', craft: null, minutes: null, note: '', needed: false, ticksItself: false },
    ...{ pinned: null, doneAt: null, doneBy: '' },
  },
  extracts: { start: null },
};

/** Writes a list as `readList` reads it; empty for an empty one. */
export function writeList<C extends ListColumn>(column: C, list: Lists[C]): string {
  if (list.length === 0) return '';
  const unsaid: Record<string, unknown> = UNSAID[column];
  const entries = list.map((entry) => {
    const said = Object.entries(entry).filter(([key, value]) => !(key in unsaid) || value !== unsaid[key]);
    return column === 'parts' && said.length === 1 ? (entry as ListedPart).text : Object.fromEntries(said);
  });
  return JSON.stringify(entries);
}
