import {
  AROUND,
  ARROWED,
  CAPTION,
  CITATION,
  CLOSING,
  CONTENTS_HEADING,
  CREDIT_HEADING,
  CREDIT,
  EDIT_MARK,
  LICENCE,
  LICENCE_HEADING,
  LINKS_ALONE,
  MUSIC,
  REFERENCE_HEADING,
  REFERENCE_MARK,
  STAGE_MARK,
} from './apartWords';
import { isBareDate } from './bareDate';
import { TELLS } from '../text/tells';
import { closedUp, GONE } from './closedUp';
import type { LeftOut, LeftOutReason } from './leftOut';
import type { RawBlock } from './rawBlock';

/** Marks that stand among the words of a sentence, which stays when they go. */
const MARKS: readonly [LeftOutReason, RegExp][] = [
  ['editMark', EDIT_MARK],
  ['stageMark', STAGE_MARK],
  ['referenceMark', REFERENCE_MARK],
  ['citation', CITATION],
  ['music', MUSIC],
];

/** A title with whom it names, as it begins what somebody says. */
const SPEAKER = /^(\p{Lu}[\p{L}\p{N} .'’-]{0,30}):\s+(?=\S)/u;
/** What begins a line and is no speaker. */
const NO_SPEAKER =
  /^(?:note|tip|warning|example|update|ps|hinweis|tipp|beispiel|achtung|remarque|exemple|nota|ejemplo|exemplo|step|schritt|paso|étape|passo)\b/iu;
/** Times that a name begins a paragraph to be that of a speaker, and names that there are then. */
const SPEAKERS = { turns: 2, names: 2 } as const;

/** Letters of a line that may be a credit, a signature or a part of a page. */
const SHORT = 120;
/** Letters of a note on rights: a longer paragraph says more than that. */
const RIGHTS = 700;
/** Paragraphs at the end of a text among which a signature is looked for. */
const LAST = 4;

/**
 * Tells apart what is none of the thought of a text: contents, references, notes on rights, credits, captions, signatures, dates
 * by themselves, and the marks that stand among its words, which stay when these go. Nothing is lost: each has its reason.
 *
 * @param isTaken whether a mark stays among its words after all
 */
export function tellApart(blocks: readonly RawBlock[], isTaken: (one: LeftOut) => boolean = () => false): RawBlock[] {
  const inSections = withoutSections(withHeadings(blocks));
  const speakers = speakersOf(inSections);
  const left = inSections.map((block, at) => {
    if (block.reason !== undefined) return block;
    const reason = reasonToLeave(block, inSections.length - at <= LAST);
    return reason ? { ...block, reason } : withoutMarks(block, speakers, isTaken);
  });
  return withoutSignature(withoutReferences(left));
}

/** Lines that name books from which they are taken for a list of references. */
const REFERENCES = 3;
/** Share of a list that names books from which all of it does. */
const LISTED = 2 / 3;

/** Without lines that name a book or a paper each, where there are several. */
function withoutReferences(blocks: readonly RawBlock[]): RawBlock[] {
  const isOne = (block: RawBlock) => block.reason === undefined && block.kind !== 'heading' && isReference(block.text);
  if (blocks.filter(isOne).length < REFERENCES && !blocks.some((block) => isOne(block) && PAGES.test(block.text)))
    return [...blocks];
  const listed = new Set(
    listsIn(blocks)
      .filter((list) => list.filter(isOne).length >= list.length * LISTED)
      .flat(),
  );
  return blocks.map((block) =>
    isOne(block) || (block.reason === undefined && listed.has(block)) ? { ...block, reason: 'reference' } : block,
  );
}

/** The lists of a text, each as its items; single ones are none. */
function listsIn(blocks: readonly RawBlock[]): RawBlock[][] {
  const lists: RawBlock[][] = [];
  blocks.forEach((block, at) => {
    if (block.kind !== 'listItem') return;
    if (blocks[at - 1]?.kind === 'listItem') lists.at(-1)!.push(block);
    else lists.push([block]);
  });
  return lists.filter(({ length }) => length > 1);
}

/** Whether a line names a book or a paper, as such lists do: parts between commas, mostly in names, with a year behind the first. */
function isReference(text: string): boolean {
  if (text.length > RIGHTS) return false;
  if (
    (PAGES.test(text) && YEAR.test(text)) ||
    AUTHOR.test(text) ||
    LABELLED.test(text) ||
    VOLUMES.test(text) ||
    WRITTEN_BY.test(text)
  )
    return true;
  // In a language that writes its nouns with large letters a sentence has as many of them as a reference.
  if (TELLS.test(text)) return false;
  const words = text.match(/\p{L}[\p{L}\p{M}’'-]*/gu) ?? [];
  const long = words.filter((word) => word.length > 3);
  const names = long.filter((word) => /^[ʿʾ’']?\p{Lu}/u.test(word));
  const parts = text.split(/[,:;]\s|\.\s(?=\p{Lu})/u).length;
  const year = text.search(YEAR);
  return long.length >= 4 && year >= BEFORE_YEAR && parts >= 4 && names.length >= long.length * NAMES;
}

const YEAR = /(?<!\p{N})(?:1[5-9]|20)\d\d(?!\p{N})/u;
/** The pages of a paper, at the end of its line: in a sentence they are said. */
const PAGES = /(?<!\p{L})(?:pp|S|págs?)\.? ?\d{1,4} ?[-–] ?\d{1,4}[.)\]]{0,2}$/u;
/** An author with the year, as a reference begins: “Marlow, Ada (2014),”. */
const AUTHOR =
  /^\p{Lu}[\p{L}\p{M}’'-]+, (?:\p{Lu}[\p{L}\p{M}.’'-]*[ ,]){1,4}(?:\([^()]{1,12}\) )?\((?:1[5-9]|20)\d\d[a-z]?\)/u;
/** The short name of a reference, with its year, before it: “Marlow 2014: Ada Marlow, …”. */
const LABELLED =
  /^\p{Lu}[\p{L}\p{M}’'-]+(?: (?:and|und|et|y|e|&) \p{Lu}[\p{L}\p{M}’'-]+)? (?:1[5-9]|20)\d\d[a-z]?: \p{Lu}/u;
/** In how many volumes a book is, between where and by whom. */
const VOLUMES = /, \d{1,3} (?:volumes|vols?\.|Bände|tomes|tomos|volúmenes), /u;
/** A line that is a name in quotation marks and by whom it is, perhaps with its press: no sentence. */
const WRITTEN_BY =
  /^[“"«„][^“”"«»„]{4,120}[”"»“],? (?:by|von|par|de|por) \p{Lu}[\p{L}\p{M}.’' -]{3,80}(?:\[[^[\]]{2,60}\]|\([^()]{2,60}\))?$/u;
/** Letters before the year of a reference: what happened in a year often begins with it. */
const BEFORE_YEAR = 8;
/** Share of the longer words of a reference that are names, and the like. */
const NAMES = 0.4;

/** Letters and words of a line that may be a heading. */
const HEADING = { letters: 80, words: 10 } as const;

/** With short lines that no mark ends, above paragraphs of sentences, as the headings that they are. */
function withHeadings(blocks: readonly RawBlock[]): RawBlock[] {
  const isLine = (block: RawBlock | undefined) =>
    block?.kind === 'paragraph' &&
    block.reason === undefined &&
    block.text.length <= HEADING.letters &&
    block.text.split(' ').length <= HEADING.words &&
    /^[^\p{L}]{0,3}\p{Lu}.*[\p{L}\p{N})’'”"»]$/u.test(block.text) &&
    !/[.!?…][”"»’']?$/u.test(block.text);
  const isProse = (block: RawBlock | undefined) =>
    block?.kind === 'paragraph' &&
    block.reason === undefined &&
    block.text.length > HEADING.letters &&
    /[.!?…][”"»’')]?$/u.test(block.text);
  return blocks.map((block, at) =>
    isLine(block) && isProse(blocks[at + 1]) && !isLine(blocks[at - 1]) && !CAPTION.test(block.text)
      ? { ...block, kind: 'heading', level: LEVEL_OF_LINES }
      : block,
  );
}

/** The level of a heading that is only a line: below all others. */
const LEVEL_OF_LINES = 6;

/** Sections that list, by their headings: each goes until a heading as high follows, contents as far as their list does. One stretch each. */
function withoutSections(blocks: readonly RawBlock[]): RawBlock[] {
  let open: { reason: LeftOutReason; level: number; blocks: RawBlock[] } | null = null;
  const left: RawBlock[] = [];
  const close = () => {
    if (open) left.push(...(isSaid(open.reason, open.blocks) ? open.blocks : [asOne(open.reason, open.blocks)]));
    open = null;
  };
  for (const block of blocks) {
    const { kind, text, reason, level = 1 } = block;
    if (reason === undefined && kind === 'heading') {
      if (open && level <= open.level) close();
      const found: LeftOutReason | null = open ? null : sectionOf(text);
      // A text that begins with thanks is a letter of thanks.
      const section: LeftOutReason | null = found === 'credit' && left.length === 0 ? null : found;
      if (section) open = { reason: section, level, blocks: [] };
    } else if (open?.reason === 'contents' && reason === undefined && kind !== 'listItem' && text.length > SHORT)
      close();
    (open?.blocks ?? left).push(block);
  }
  close();
  return left;
}

/** Whether a section on rights or on who made something says so much that it is of the thought of its text. */
const isSaid = (reason: LeftOutReason, blocks: readonly RawBlock[]): boolean =>
  (reason === 'licence' || reason === 'credit') &&
  blocks.reduce((sum, { text, reason: own }) => sum + (own === undefined ? text.length : 0), 0) > 2 * RIGHTS;

/** A section as one stretch that is left out. */
function asOne(reason: LeftOutReason, blocks: readonly RawBlock[]): RawBlock {
  const lines: string[] = [];
  const others: LeftOut[] = [];
  for (const { text, reason: own, marks = [] } of blocks) {
    if (own === undefined) lines.push(text);
    else others.push({ reason: own, text });
    others.push(...marks);
  }
  return { kind: 'paragraph', reason, text: lines.join('\n'), marks: others };
}

function sectionOf(heading: string): LeftOutReason | null {
  const bare = heading
    .replace(EDIT_MARK, '')
    .replace(/^[\d.]+\s+/, '')
    .replace(/[:.]$/, '')
    .trim();
  if (CONTENTS_HEADING.test(bare)) return 'contents';
  const parts = bare.split(/[/&]|\b(?:and|und|et|y|e)\b/u).map((one) => one.trim());
  if (REFERENCE_HEADING.test(bare) || parts.every((one) => REFERENCE_HEADING.test(one))) return 'reference';
  if (parts.every((one) => CREDIT_HEADING.test(one) || REFERENCE_HEADING.test(one))) return 'credit';
  return LICENCE_HEADING.test(bare) ? 'licence' : null;
}

/** Why a stretch by itself is none of the thought of its text; null where it may be. */
export function reasonToLeave({ kind, text }: RawBlock, isAtEnd: boolean): LeftOutReason | null {
  const isShort = text.length <= SHORT;
  if (isShort && (AROUND.test(text) || LINKS_ALONE.test(text))) return 'navigation';
  if (text.length <= SHORT * 2 && ARROWED.test(text)) return 'navigation';
  const isOnRights = text.length <= RIGHTS && LICENCE.test(text.toLowerCase());
  if (isShort && isOnRights) return 'licence';
  if (kind === 'heading') return isBareDate(text) ? 'date' : null;
  if (/^\[?\^[^\]\s]{1,20}\]:?\s/.test(text)) return 'reference';
  if (CAPTION.test(text) && text.length <= RIGHTS) return 'caption';
  if (isShort && isBareDate(text)) return 'date';
  if (isOnRights) return 'licence';
  if (isShort && isCredit(text)) return 'credit';
  if (/(?:\. ?){4,60}\d{1,4}$/.test(text)) return 'contents';
  if (isAtEnd && isShort && isSignature(text)) return 'signature';
  return null;
}

/** A line that names who made something, and says nothing else. */
const isCredit = (text: string): boolean =>
  CREDIT.test(text) &&
  !/[.!?]\s+\S/.test(text) &&
  /(?:[:©]|\b(?:[Bb]y|par|von|de|por|et|im Auftrag))\s*\p{Lu}/u.test(text);

const isSignature = (text: string): boolean =>
  CLOSING.test(text) ||
  /^[—–-]\s?\p{Lu}[\p{L}.'’-]*(?: \p{Lu}[\p{L}.'’-]*){0,3}$/u.test(text) ||
  /^[^\s@]+@[^\s@.]+\.[^\s@]+$/.test(text);

/** What follows the words that close a letter: a name or two, and no sentence. */
function withoutSignature(blocks: readonly RawBlock[]): RawBlock[] {
  const at = blocks.findIndex(({ reason, text }) => reason === 'signature' && CLOSING.test(text));
  if (at < 0) return [...blocks];
  return blocks.map((block, place) =>
    place > at && block.reason === undefined && block.text.length <= SHORT / 2 && !/[.!?]$/.test(block.text)
      ? { ...block, reason: 'signature' }
      : block,
  );
}

/** The names that begin what somebody says, where several take turns. */
export function speakersOf(blocks: readonly RawBlock[]): ReadonlySet<string> {
  const turns = new Map<string, number>();
  for (const { kind, text, reason } of blocks) {
    const name = kind === 'paragraph' && reason === undefined ? SPEAKER.exec(text)?.[1] : undefined;
    if (name !== undefined && !NO_SPEAKER.test(name)) turns.set(name, (turns.get(name) ?? 0) + 1);
  }
  const able = [...turns].filter(([, times]) => times >= SPEAKERS.turns).map(([name]) => name);
  return new Set(able.length >= SPEAKERS.names ? able : []);
}

/** The name that a paragraph begins with, with what parts it from its words; null where it is none of the speakers. */
export function speakerIn(text: string, speakers: ReadonlySet<string>): [label: string, speaker: string] | null {
  const named = SPEAKER.exec(text);
  return named && speakers.has(named[1]!) ? [named[0], named[1]!] : null;
}

function withoutMarks(block: RawBlock, speakers: ReadonlySet<string>, isTaken: (one: LeftOut) => boolean): RawBlock {
  const marks: LeftOut[] = [...(block.marks ?? [])];
  const takenIn: LeftOut[] = [];
  let { text } = block;
  let speaker: string | undefined;
  const named = block.kind === 'paragraph' ? speakerIn(text, speakers) : null;
  if (named) {
    speaker = named[1];
    marks.push({ reason: 'speaker', text: speaker });
    text = text.slice(named[0].length);
  }
  for (const [reason, pattern] of MARKS)
    text = text.replace(pattern, (mark) => {
      const one = { reason, text: mark.trim() };
      const stays = isTaken(one);
      (stays ? takenIn : marks).push(one);
      return stays ? mark : GONE;
    });
  return {
    ...block,
    text: closedUp(text),
    ...(speaker !== undefined && { speaker }),
    ...(marks.length > 0 && { marks }),
    ...(takenIn.length > 0 && { takenIn }),
  };
}
