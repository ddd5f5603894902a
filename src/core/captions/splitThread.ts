import { accept, refuse, type Result } from '../refusal';
import type { CountRule } from '../rulesheets/types';
import { segmentsOf } from '../text/segments';
import { countText } from './count';
import { hashtagSpans } from './hashtags';
import { linkSpans, type Span } from './links';

/**
 * What the parts of a thread may hold.
 *
 * @internal
 */
export interface ThreadRule extends CountRule {
  /** Units of a part, its number included. */
  limit: number;
  /** Units of the first part, where something else stands in it too; as the others unless told. */
  firstLimit?: number;
  /** Parts at most. */
  most: number;
  /** Whether each part ends with its number: “ 2/5”. A thread of one part has none. */
  numbered: boolean;
}

/** A text in parts. */
interface Thread {
  /** Without their numbers. Joined by what was cut between them, they give the text back. */
  parts: readonly string[];
  /** The white space that was cut after each part but the last. */
  cuts: readonly string[];
}

/** The number at the end of a part. @param index counted from 0 */
export const partNumber = (index: number, count: number): string => (count > 1 ? ` ${index + 1}/${count}` : '');

/** How finely a text is cut: into sentences, where a sentence does not fit into its clauses, then words, then characters. */
const FINENESS = ['sentence', 'clause', 'word', 'character'] as const;
type Fineness = (typeof FINENESS)[number];

/**
 * Splits a text into the parts of a thread. No sentence that fits a part is cut, unless there would be too many parts; one that
 * does not is cut at its clauses, else at words, else between characters, never inside a link, a hashtag or a mention. Of all
 * such splits it is the one with the fewest parts, and of these the most even (least sum of squares of what the parts count).
 * Each part keeps room for its own number. What does not fit the first part, where that has less room, waits for one that holds it.
 *
 * @returns refused where a link, hashtag or mention is longer than a part that it can stand in, or where even cut at words there
 *   are too many parts
 */
export function splitThread(text: string, rule: ThreadRule): Result<Thread> {
  const whole = text.trim();
  if (whole === '') return accept({ parts: [], cuts: [] });
  const bound = boundSpans(whole);
  const widest = roomsIn(Math.min(rule.most, 2), rule);
  for (const span of bound) {
    const has = countText(whole.slice(span.start, span.end), rule);
    const takes = span.start === 0 ? Math.max(roomOf(0, 1, rule), widest.first) : Math.max(widest.first, widest.others);
    if (has > takes)
      return refuse(
        'longLink',
        `“${whole.slice(span.start, span.start + 40)}…” counts ${has} and a part takes ${takes}. Shorten it, or leave it out.`,
      );
  }
  const counts = countsWithRoom(whole, rule);
  for (const cutAll of FINENESS.slice(0, 3)) {
    const parts = fewestMostEven(whole, counts, cutAll, bound, rule);
    if (parts) return accept(threadOf(whole, parts));
  }
  const needs = Math.ceil(countText(whole, rule) / Math.max(1, roomsIn(rule.most, rule).others));
  return refuse(
    'tooManyParts',
    `It would take ${Math.max(needs, rule.most + 1)} parts, and ${rule.most} are taken. Shorten the text.`,
  );
}

/** Units of a part beside its own number. @param part counted from 0 */
const roomOf = (part: number, count: number, rule: ThreadRule): number =>
  (part === 0 ? (rule.firstLimit ?? rule.limit) : rule.limit) -
  (rule.numbered ? countText(partNumber(part, count), rule) : 0);

/** Numbers of parts that together have room for what a text counts without its white space: with fewer there is no need to look for cuts. */
function countsWithRoom(text: string, rule: ThreadRule): number[] {
  const takes = text.split(WHITE).reduce((sum, run) => sum + countText(run, rule), 0);
  const hasRoom = (count: number) => {
    let room = 0;
    for (let part = 0; part < count; part++) room += roomOf(part, count, rule);
    return room >= takes;
  };
  return Array.from({ length: rule.most }, (_, index) => index + 1).filter(hasRoom);
}

/** Room of the first of so many parts, and the most that one of the others has. */
interface Rooms {
  first: number;
  others: number;
}

const roomsIn = (count: number, rule: ThreadRule): Rooms => ({
  first: roomOf(0, count, rule),
  others: count > 1 ? roomOf(1, count, rule) : roomOf(0, count, rule),
});

function threadOf(text: string, parts: readonly Span[]): Thread {
  return {
    parts: parts.map(({ start, end }) => text.slice(start, end)),
    cuts: parts.slice(1).map(({ start }, index) => text.slice(parts[index]!.end, start)),
  };
}

/** What is never cut. */
const boundSpans = (text: string): Span[] =>
  [
    ...linkSpans(text),
    ...hashtagSpans(text),
    ...[...text.matchAll(/@[\p{L}\p{N}_.-]*[\p{L}\p{N}_]/gu)].map(({ index, 0: all }) => ({
      start: index,
      end: index + all.length,
    })),
  ].sort((one, other) => one.start - other.start);

const segmenters = {
  sentence: new Intl.Segmenter('und', { granularity: 'sentence' }),
  word: new Intl.Segmenter('und', { granularity: 'word' }),
  character: new Intl.Segmenter('und', { granularity: 'grapheme' }),
};
const CLAUSE_END = /[,;:–—，、；：][”"’)\]]*\s*/gu;
const WHITE = /\s+/gu;

/** Offsets inside a stretch at which it may be cut that finely. */
function endsIn(text: string, { start, end }: Span, fineness: Fineness): number[] {
  const own = text.slice(start, end);
  const ends =
    fineness === 'clause'
      ? [...own.matchAll(CLAUSE_END)]
          .filter(({ 0: mark, index }) => /\s$/.test(mark) || isWideMark(own[index]!))
          .map(({ index, 0: mark }) => index + mark.length)
      : fineness === 'word' && /\s/.test(own.trim())
        ? [...own.matchAll(WHITE)].map(({ index, 0: white }) => index + white.length)
        : [...segmentsOf(own, segmenters[fineness])].map(({ index, segment }) => index + segment.length);
  return ends.map((offset) => start + offset);
}

const isWideMark = (mark: string): boolean => /[，、；：]/u.test(mark);

/** The smallest stretches that stay whole: each fits a part, or cannot be cut. Without the white space around them. */
function atomsOf(text: string, cutAll: Fineness, rooms: Rooms, rule: CountRule, bound: readonly Span[]): Span[] {
  const cut = (span: Span, depth: number): Span[] => {
    const trimmed = trimSpan(text, span);
    if (trimmed.start === trimmed.end) return [];
    const isFineEnough = depth > FINENESS.indexOf(cutAll);
    // What begins the text can stand in the first part alone.
    const limit = trimmed.start === 0 ? rooms.first : Math.max(rooms.first, rooms.others);
    if (depth >= FINENESS.length || (isFineEnough && countText(text.slice(trimmed.start, trimmed.end), rule) <= limit))
      return [trimmed];
    const ends = endsIn(text, trimmed, FINENESS[depth]!).filter(
      (end) => end < trimmed.end && !bound.some((whole) => whole.start < end && end < whole.end),
    );
    return [...ends, trimmed.end].flatMap((end, index) =>
      cut({ start: ends[index - 1] ?? trimmed.start, end }, depth + 1),
    );
  };
  return cut({ start: 0, end: text.length }, 0);
}

function trimSpan(text: string, { start, end }: Span): Span {
  const own = text.slice(start, end);
  return {
    start: start + own.length - own.trimStart().length,
    end: Math.max(start, end - own.length + own.trimEnd().length),
  };
}

/** Atoms, and what the text counts up to where each begins and ends. */
interface Measured {
  atoms: readonly Span[];
  upToStart: readonly number[];
  upToEnd: readonly number[];
}

function measured(text: string, atoms: readonly Span[], rule: CountRule): Measured {
  // White space and what is never cut part the atoms, so what two neighbours count is what both count together.
  const upToStart: number[] = [];
  const upToEnd: number[] = [];
  atoms.forEach(({ start, end }, at) => {
    const before = at === 0 ? 0 : upToEnd[at - 1]! + countText(text.slice(atoms[at - 1]!.end, start), rule);
    upToStart.push(before);
    upToEnd.push(before + countText(text.slice(start, end), rule));
  });
  return { atoms, upToStart, upToEnd };
}

/** The text put into parts by dynamic programming over their number; null where there would be too many. */
function fewestMostEven(
  text: string,
  counts: readonly number[],
  cutAll: Fineness,
  bound: readonly Span[],
  rule: ThreadRule,
): Span[] | null {
  const byRooms = new Map<string, Measured>();
  for (const count of counts) {
    const rooms = roomsIn(count, rule);
    const key = `${rooms.first} ${rooms.others}`;
    const pieces = byRooms.get(key) ?? measured(text, atomsOf(text, cutAll, rooms, rule, bound), rule);
    byRooms.set(key, pieces);
    const split = fitsInto(count, pieces, rule) ? splitInto(count, pieces, rule) : null;
    if (split) return split.map(([from, to]) => ({ start: pieces.atoms[from]!.start, end: pieces.atoms[to]!.end }));
  }
  return null;
}

/** Whether the atoms fit into so many parts or fewer, each part filled as far as it goes. */
function fitsInto(count: number, { upToStart, upToEnd }: Measured, rule: ThreadRule): boolean {
  let from = 0;
  for (let part = 0; part < count && from < upToEnd.length; part++) {
    const [limit, first] = [roomOf(part, count, rule), from];
    while (from < upToEnd.length && upToEnd[from]! - upToStart[first]! <= limit) from++;
    if (from === first) return false;
  }
  return from === upToEnd.length;
}

/** The most even split into exactly so many parts, each as its first and last atom; null where none fits. */
function splitInto(count: number, { upToStart, upToEnd }: Measured, rule: ThreadRule): [number, number][] | null {
  const atoms = upToEnd.length;
  // costs[end]: the least sum of squares with `part + 1` parts that hold the atoms before `end`.
  let costs = new Float64Array(atoms + 1).fill(Infinity);
  costs[0] = 0;
  const firsts: Int32Array[] = [];
  for (let part = 0; part < count; part++) {
    const limit = roomOf(part, count, rule);
    const next = new Float64Array(atoms + 1).fill(Infinity);
    const first = new Int32Array(atoms + 1).fill(-1);
    for (let end = 1; end <= atoms; end++)
      for (let from = end - 1; from >= 0; from--) {
        const has = upToEnd[end - 1]! - upToStart[from]!;
        if (has > limit) break;
        const cost = costs[from]! + has * has;
        if (cost < next[end]!) {
          next[end] = cost;
          first[end] = from;
        }
      }
    costs = next;
    firsts.push(first);
  }
  if (costs[atoms] === Infinity) return null;
  const parts: [number, number][] = [];
  for (let part = count - 1, end = atoms; part >= 0; part--) {
    const from = firsts[part]![end]!;
    parts.unshift([from, end - 1]);
    end = from;
  }
  return parts;
}
