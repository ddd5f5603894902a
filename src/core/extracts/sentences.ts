import type { Block, ReadingText } from '../reading/readingText';
import { timesOf, type Cue } from '../reading/subtitles';
import { wordsOfLanguage, type LanguageWords } from './languages';
import { withoutEnd } from '../text/ends';
import { segmentsOf } from '../text/segments';

/** A sentence of a reading text, in UTF-16 offsets, without the white space around it. */
export interface Sentence {
  start: number;
  end: number;
  /** Of a stretch of speech that begins with words which only tie it to the one before: where it begins without them. */
  opensAt?: number;
  /** Only a part of a long sentence that ends with its mark: no whole by itself. */
  isCut?: true;
  /** The block it stands in. */
  block: number;
  inMs?: number;
  outMs?: number;
}

/** Characters of a stretch without punctuation at which it is cut, at the next pause or word. */
const LONG = { least: 70, usual: 140, most: 260 };
/** A pause that ends a sentence where nothing else does, in milliseconds. */
const PAUSE_MS = 350;
/** Characters from which a sentence is taken for a stretch without punctuation. */
const ENDLESS = 400;
/** Characters from which a stretch is taken to have no marks, even if one stands at its end. */
const UNMARKED = 1_500;

const segmenters = new Map<string, Intl.Segmenter>();
function segmenterOf(language: string | null): Intl.Segmenter {
  const key = language ?? 'und';
  let segmenter = segmenters.get(key);
  if (!segmenter) segmenters.set(key, (segmenter = new Intl.Segmenter(key, { granularity: 'sentence' })));
  return segmenter;
}

/**
 * The sentences of a text, block by block (UAX #29, mended: an abbreviation, an initial or an ordinal ends none, nor does a mark
 * that is followed by a small letter). A stretch that nothing ends, as transcripts often are, is cut at pauses, and where
 * there is none, at a word after some 140 characters. Headings are no sentences.
 *
 * @param cues of a timed text
 */
export function sentencesOf(
  { text, blocks }: Pick<ReadingText, 'text' | 'blocks'>,
  language: string | null,
  cues: readonly Cue[] = [],
): Sentence[] {
  const known = wordsOfLanguage(language);
  const segmenter = segmenterOf(language);
  return blocks.flatMap((block, index) => {
    if (block.kind === 'heading') return [];
    return cutsOf(text, block, segmenter, known).flatMap((cut) =>
      shortened(text, cut, cues, known).map(({ start, end, opensAt: opening, isCut }) => ({
        start,
        end,
        ...(opening !== undefined && opening > start && { opensAt: opening }),
        ...(isCut && { isCut }),
        block: index,
        ...(cues.length > 0 && timesOf(cues, start, end)),
      })),
    );
  });
}

type Stretch = Pick<Sentence, 'start' | 'end' | 'opensAt' | 'isCut'>;

function cutsOf(text: string, block: Block, segmenter: Intl.Segmenter, known: LanguageWords): Stretch[] {
  const cuts: Stretch[] = [];
  let joins = false;
  const own = text.slice(block.start, block.end);
  for (const { segment, index } of segmentsOf(own, segmenter)) {
    const trimmed = segment.trimEnd();
    if (trimmed === '') continue;
    const lead = segment.length - segment.trimStart().length;
    const start = block.start + index + lead;
    const end = block.start + index + trimmed.length;
    const last = cuts.at(-1);
    if (last && (joins || goesOn(trimmed.slice(lead)))) last.end = end;
    else cuts.push({ start, end });
    const sofar = text.slice(cuts.at(-1)!.start, end);
    joins = endsNothing(sofar, known) || isInSpeech(sofar) || isInBracket(sofar);
  }
  return cuts;
}

/** Whether a segment goes on with the one before: it begins small, or with a mark that closes. */
const goesOn = (segment: string): boolean =>
  /^["”’»)\]]*(?:[,;:–—]|\p{Ll})/u.test(segment) || /^[”’»)\]]+$/u.test(segment);

/** Whether the mark at the end of a text ends no sentence: it belongs to an abbreviation, an initial or an ordinal. */
function endsNothing(text: string, known: LanguageWords): boolean {
  if (!text.endsWith('.')) return false;
  const before = text.slice(0, -1);
  const word = before.slice(withoutEnd(before, /\S/).length).replace(/^[("'“‘«[]+/u, '');
  if (/^\p{L}$/u.test(word)) return word !== 'I';
  if (known.hasOrdinalStops && /^\d{1,2}$/.test(word)) return true;
  return known.abbreviations.has(word.toLowerCase());
}

/** Characters of speech from which its marks are taken to be a slip. */
const LONG_SPEECH = 300;

/** Whether a quotation is open at the end of a text. */
function isInSpeech(text: string): boolean {
  const [opened, closed] = [text.lastIndexOf('“'), text.lastIndexOf('”')];
  return opened > closed && text.length - opened < LONG_SPEECH;
}

/** Characters in brackets from which their end is taken to be missing. */
const LONG_BRACKET = 120;

/** Whether a bracket is open at the end of a text that did not begin with it. */
function isInBracket(text: string): boolean {
  const [opened, closed] = [text.lastIndexOf('('), text.lastIndexOf(')')];
  return opened > 0 && opened > closed && text.length - opened < LONG_BRACKET;
}

/** A sentence as it is, or, where it is endless, cut at pauses, commas and words. */
function shortened(text: string, { start, end }: Stretch, cues: readonly Cue[], known: LanguageWords): Stretch[] {
  if (end - start <= ENDLESS) return [{ start, end }];
  const own = text.slice(start, end);
  const isMarked = own.length < UNMARKED && /[.!?…。！？]/u.test(own.slice(withoutEnd(own, /[^\p{L}\p{Cs}]/u).length));
  const pauses = pausesIn(cues, start, end);
  const cuts: Stretch[] = [];
  let from = 0;
  for (let at = 0; at < own.length; at++) {
    if (own[at] !== ' ' && own[at] !== '\n') continue;
    const length = at - from;
    const isPause = pauses.has(start + at + 1) && length >= LONG.usual / 3;
    const isClause = length >= LONG.usual && /[,;:–—]$/u.test(own.slice(from, at));
    const goesOn = !isMarked && length >= LONG.least && known.goingOn.has(openerIn(own, at + 1).toLowerCase());
    if (!isPause && !isClause && !goesOn && length < LONG.most) continue;
    cuts.push({ start: start + from, end: start + at });
    from = at + 1;
  }
  if (from < own.length) cuts.push({ start: start + from, end });
  return cuts
    .filter((cut) => cut.end > cut.start)
    .map((cut) => ({ ...cut, ...(isMarked ? { isCut: true } : { opensAt: opensAt(text, cut, known) }) }));
}

/** Where a stretch of speech says something of its own, behind the words that only tie it to what was said before. */
function opensAt(text: string, { start, end }: Stretch, known: LanguageWords): number {
  let at = start;
  for (let word = openerIn(text, at); known.goingOn.has(word.toLowerCase()); word = openerIn(text, at))
    at += word.length + 1;
  return at < end ? at : start;
}

/** The word that stands at a place of a text; empty for none. */
const openerIn = (text: string, at: number): string => /^[\p{L}'’]+(?=\s)/u.exec(text.slice(at, at + 30))?.[0] ?? '';

/** Offsets at which something is said after a pause. */
function pausesIn(cues: readonly Cue[], start: number, end: number): Set<number> {
  const pauses = new Set<number>();
  for (let at = 1; at < cues.length; at++) {
    const cue = cues[at]!;
    if (cue.start > end) break;
    if (cue.start > start && cue.inMs - cues[at - 1]!.outMs >= PAUSE_MS) pauses.add(cue.start);
  }
  return pauses;
}

const WORD = /[\p{L}\p{N}][\p{L}\p{M}\p{N}]*(?:['’.,][\p{L}\p{N}][\p{L}\p{M}\p{N}]*)*/gu;
const WITHOUT_SPACES = /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}]/u;
const wordSegmenter = new Intl.Segmenter('und', { granularity: 'word' });

/** The words of a text in lower case, with straight apostrophes; of scripts without spaces as the dictionary cuts them. */
export function wordsIn(text: string): string[] {
  if (WITHOUT_SPACES.test(text))
    return [...segmentsOf(text, wordSegmenter)].flatMap(({ segment, isWordLike }) =>
      isWordLike ? [segment.toLowerCase()] : [],
    );
  return (text.match(WORD) ?? []).map((word) => word.toLowerCase().replaceAll('’', "'"));
}

/** The words of a text that say what it is about. */
export const contentWords = (words: readonly string[], known: LanguageWords): string[] =>
  words.filter((word) => !known.stop.has(word) && (word.length > 1 || /\p{N}|\P{ASCII}/u.test(word)));
