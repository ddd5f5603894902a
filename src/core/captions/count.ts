import { eastAsianWidth } from 'get-east-asian-width';
import { segmentsOf } from '../text/segments';
import type { CountRule, Fold } from '../rulesheets/types';
import { linkSpans, type Span } from './links';

/** How much of a text counts, and where its fold and its limit fall. */
export interface Measure {
  /** In the rule's units. */
  count: number;
  /** UTF-16 offset from which the text lies behind the fold; null if all of it shows. */
  foldAt: number | null;
  /** UTF-16 offset from which the text is over the limit; null if it fits. */
  overAt: number | null;
}

const graphemes = new Intl.Segmenter('und', { granularity: 'grapheme' });

/**
 * Characters below U+0300 other than the carriage return: between two of them there is always a grapheme boundary
 * (UAX #29, rules GB3 and GB9), so only runs of others need the segmenter, which is many times slower. A single
 * simple character between two runs joins them, since either may take it into a cluster.
 */
const BEYOND_SIMPLE = /[^\u0000-\u000c\u000e-\u02ff]+(?:[\u0000-\u000c\u000e-\u02ff][^\u0000-\u000c\u000e-\u02ff]+)*/g;
const EMOJI_SHOWN = /\p{Emoji_Presentation}|\uFE0F|\u20E3/u;
/** What only says how the character before it is shown: variation selectors, and the frame of a key. */
const SHOWS_OTHERS = /^[\uFE00-\uFE0F\u20E3]$/u;
const MARKS_AND_JOINERS = /^[\p{M}\p{Cf}]$/u;

/**
 * Counts a text as a rule sheet does.
 *
 * @example
 * countText('👩‍🚀', { unit: 'grapheme', wideWeight: 1, linkLength: null }) // 1
 * countText('👩‍🚀', { unit: 'utf16', wideWeight: 1, linkLength: null }) // 5
 * countText('月 https://a.example/long', { unit: 'grapheme', wideWeight: 2, linkLength: 20 }) // 2 + 1 + 20
 */
export function countText(text: string, rule: CountRule): number {
  let count = 0;
  walk(text, rule, (_start, weight) => void (count += weight));
  return count;
}

/**
 * Whether texts fit together without counting them: none counts more than its UTF-16 units, all taken as wide, and its links.
 * False does not mean that they are over. Hundreds of posts are looked at for one calendar page, and most are far below.
 *
 * @param more units beside the texts
 */
export function surelyFit(texts: readonly string[], rule: CountRule & { limit: number }, more = 0): boolean {
  const units = texts.reduce((sum, text) => sum + text.length, more);
  const { linkLength } = rule;
  const links =
    linkLength === null
      ? 0
      : texts.reduce((sum, text) => sum + (text.match(/:\/\/|www\./gi)?.length ?? 0) * linkLength, 0);
  return units * rule.wideWeight + links <= rule.limit;
}

/** Counts a text and finds its fold and the place where it runs over `limit`. */
export function measureText(text: string, rule: CountRule & { limit: number; fold: Fold | null }): Measure {
  const lineFold = rule.fold?.lines == null ? null : endOfLine(text, rule.fold.lines);
  const foldUnits = rule.fold?.units ?? Infinity;
  const measure: Measure = { count: 0, foldAt: null, overAt: null };
  walk(text, rule, (start, weight) => {
    measure.count += weight;
    if (measure.foldAt === null && measure.count > foldUnits) measure.foldAt = start;
    if (measure.overAt === null && measure.count > rule.limit) measure.overAt = start;
  });
  if (lineFold !== null) measure.foldAt = Math.min(lineFold, measure.foldAt ?? Infinity);
  return measure;
}

/** Offset of the line break that ends line number `lines`, or null when the text has no more lines than that. */
function endOfLine(text: string, lines: number): number | null {
  let at = -1;
  for (let line = 0; line < lines; line++) {
    at = text.indexOf('\n', at + 1);
    if (at < 0) return null;
  }
  return at;
}

/** Visits what counts as one, links whole where they have a fixed length: its offset and its weight. */
function walk(text: string, rule: CountRule, visit: (start: number, weight: number) => void): void {
  let from = 0;
  for (const link of rule.linkLength === null ? ([] as Span[]) : linkSpans(text)) {
    walkPlain(text, from, link.start, rule, visit);
    visit(link.start, rule.linkLength!);
    from = link.end;
  }
  walkPlain(text, from, text.length, rule, visit);
}

function walkPlain(
  text: string,
  from: number,
  to: number,
  rule: CountRule,
  visit: (start: number, weight: number) => void,
): void {
  if (rule.unit !== 'grapheme') {
    for (let at = from; at < to;) {
      const character = rule.unit === 'utf16' ? text[at]! : String.fromCodePoint(text.codePointAt(at)!);
      visit(at, rule.wideWeight === 2 ? weightIn(text, at, character) : 1);
      at += character.length;
    }
    return;
  }
  walkGraphemes(text, from, to, rule.wideWeight === 2, visit);
}

function walkGraphemes(
  text: string,
  from: number,
  to: number,
  weighWide: boolean,
  visit: (start: number, weight: number) => void,
): void {
  const part = from === 0 && to === text.length ? text : text.slice(from, to);
  let done = 0;
  const simpleUpTo = (end: number) => {
    for (; done < end; done++) visit(from + done, 1);
  };
  for (const run of part.matchAll(BEYOND_SIMPLE)) {
    // A simple neighbour on either side may belong to a cluster of the run (a letter and its combining mark).
    const start = Math.max(done, run.index - 1);
    const end = Math.min(part.length, run.index + run[0].length + 1);
    simpleUpTo(start);
    for (const { segment, index } of segmentsOf(part.slice(start, end), graphemes))
      visit(from + start + index, weighWide && isWide(segment) ? 2 : 1);
    done = end;
  }
  simpleUpTo(part.length);
}

/** What a single character weighs where wide ones weigh 2: what only says how the one before is shown makes that one wide, and weighs nothing. */
function weightIn(text: string, at: number, character: string): number {
  if (SHOWS_OTHERS.test(character)) return 0;
  const next = text[at + character.length] ?? '';
  return isWide(next === '\uFE0F' || next === '\u20E3' ? character + next : character) ? 2 : 1;
}

/** Whether a cluster takes two columns: East Asian wide or fullwidth (UAX #11), or shown as an emoji (UTS #51). */
function isWide(cluster: string): boolean {
  if (cluster.length === 1 && cluster.charCodeAt(0) < 0x1100 && !EMOJI_SHOWN.test(cluster)) return false;
  if (EMOJI_SHOWN.test(cluster)) return true;
  const first = [...cluster].find((character) => !MARKS_AND_JOINERS.test(character));
  return first !== undefined && eastAsianWidth(first.codePointAt(0)!) === 2;
}
