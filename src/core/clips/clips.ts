import type { Analysis, ScoredSentence } from '../extracts/analyse';

/** A part of a recording worth its own short video. */
export interface Clip {
  /** UTF-16 offsets of the text. */
  start: number;
  end: number;
  inMs: number;
  outMs: number;
  text: string;
}

/** What clips shall be. All times in milliseconds. */
export interface ClipLimits {
  leastMs: number;
  mostMs: number;
  /** How many at most. */
  most: number;
  /** From the end of one to the beginning of the next, at least. */
  apartMs: number;
}

const CLIP_LIMITS: ClipLimits = { leastMs: 15_000, mostMs: 60_000, most: 6, apartMs: 30_000 };

/** A pause after which a clip may begin where words are timed, in milliseconds. */
const BREATH_MS = 400;

/**
 * A stretch of time with what it is worth.
 *
 * @internal
 */
export interface TimedWindow {
  inMs: number;
  outMs: number;
  value: number;
}

/**
 * Finds the best clips of a timed text: windows of whole sentences within the wanted length, each worth the mean score of its
 * sentences; of these the most valuable set of at most so many that lie far enough apart. Empty for a text without times.
 *
 * @param isFree whether a stretch may still be used; all may unless told
 */
export function findClips(
  analysis: Analysis,
  limits: Partial<ClipLimits> = {},
  isFree: (stretch: { start: number; end: number }) => boolean = () => true,
): Clip[] {
  const wanted = { ...CLIP_LIMITS, ...limits };
  const windows = windowsOf(analysis, wanted).filter(isFree);
  return bestSet(windows, wanted.most, wanted.apartMs).map(({ start, end, inMs, outMs }) => ({
    start,
    end,
    inMs,
    outMs,
    text: analysis.text.slice(start, end).replace(/\s+/g, (space) => (space.includes('\n') ? ' ' : space)),
  }));
}

type Timed = ScoredSentence & { inMs: number; outMs: number };
const isTimed = (sentence: ScoredSentence): sentence is Timed =>
  sentence.inMs !== undefined && sentence.outMs !== undefined;

function windowsOf(
  { sentences, isWordTimed }: Analysis,
  { leastMs, mostMs }: ClipLimits,
): (TimedWindow & { start: number; end: number })[] {
  const timed = sentences.filter(isTimed);
  const windows: (TimedWindow & { start: number; end: number })[] = [];
  timed.forEach((first, from) => {
    const before = timed[from - 1];
    if (isWordTimed && before && first.inMs - before.outMs < BREATH_MS) return;
    let sum = 0;
    for (let to = from; to < timed.length; to++) {
      const last = timed[to]!;
      const length = last.outMs - first.inMs;
      if (length > mostMs) break;
      sum += last.score;
      const value = sum / (to - from + 1);
      if (length >= leastMs && value > 0)
        windows.push({ start: first.start, end: last.end, inMs: first.inMs, outMs: last.outMs, value });
    }
  });
  return windows;
}

/**
 * The most valuable set of at most `most` windows, each `apartMs` or more after the one before: weighted interval scheduling
 * (J. Kleinberg and É. Tardos, “Algorithm Design”, 2005, 6.1), over the end and the count. Earlier windows win a tie.
 *
 * @returns the windows in the order of time
 * @internal
 */
export function bestSet<W extends TimedWindow>(windows: readonly W[], most: number, apartMs: number): W[] {
  const byEnd = [...windows].sort((one, other) => one.outMs - other.outMs || one.inMs - other.inMs);
  // before[i]: how many of the windows, in the order of their ends, end early enough before window i begins.
  const before = byEnd.map(({ inMs }) => countEndingBy(byEnd, inMs - apartMs));
  const width = byEnd.length + 1;
  const best = new Float64Array((most + 1) * width);
  for (let count = 1; count <= most; count++)
    for (let at = 1; at <= byEnd.length; at++) {
      const without = best[count * width + at - 1]!;
      const with_ = best[(count - 1) * width + before[at - 1]!]! + byEnd[at - 1]!.value;
      best[count * width + at] = Math.max(without, with_);
    }
  const chosen: W[] = [];
  for (let count = most, at = byEnd.length; count > 0 && at > 0;) {
    if (best[count * width + at] === best[count * width + at - 1]) at--;
    else {
      chosen.unshift(byEnd[at - 1]!);
      at = before[at - 1]!;
      count--;
    }
  }
  return chosen;
}

function countEndingBy(byEnd: readonly TimedWindow[], moment: number): number {
  let [low, high] = [0, byEnd.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (byEnd[middle]!.outMs <= moment) low = middle + 1;
    else high = middle;
  }
  return low;
}
