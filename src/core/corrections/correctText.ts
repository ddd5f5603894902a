import { wordsIn } from '../extracts/sentences';
import { withoutEnd } from '../text/ends';
import type { Correction } from './corrections';
import type { WordChange } from './wordChanges';

/** A text with what a piece says by now in the place of what it said. */
interface Corrected {
  text: string;
  /** Places of the corrections that were made in it. */
  made: number[];
  /** Places of those whose sentence stands in it and nowhere in the piece any more. */
  gone: number[];
}

/** A stretch that is replaced. */
interface Put {
  start: number;
  end: number;
  to: string;
  correction: number;
}

/** Letters from which a sentence is looked for whole. */
const WHOLE_FROM = 8;

/**
 * Corrects a text as its piece was corrected. A sentence that stands whole in it is replaced; where it stands otherwise, those of
 * its words that changed: a figure, a date or a name where the sentence around it is about the same, any other word only
 * between the same words. What stands there as it is said by now is left.
 */
export function correctText(text: string, corrections: readonly Correction[]): Corrected {
  const puts: Put[] = [];
  const kept = corrections.flatMap(({ after }) => (after === null ? [] : placesOf(text, after)));
  const gone: number[] = [];
  const isFree = ({ start, end }: { start: number; end: number }) =>
    [...puts, ...kept].every((one) => end <= one.start || start >= one.end);
  const longestFirst = corrections
    .map((correction, place) => ({ ...correction, place }))
    .sort((one, other) => other.before.length - one.before.length);
  for (const { of, before, after, place } of longestFirst) {
    const [from, to] = of === 'link' ? [before, after] : withoutSameEnd(before, after);
    if (from.length < WHOLE_FROM) continue;
    for (const span of placesOf(text, from).filter(isFree)) {
      if (to === null) gone.push(place);
      puts.push({ ...span, to: to ?? text.slice(span.start, span.end), correction: place });
    }
  }
  for (const { before, changes, place } of longestFirst)
    for (const change of changes)
      for (const span of placesOf(text, change.from).filter(isFree))
        if (isMeant(text, span, change, before)) puts.push({ ...span, to: change.to, correction: place });
  const isGone = new Set(gone);
  return {
    text: putInto(text, puts),
    made: [...new Set(puts.flatMap(({ correction }) => (isGone.has(correction) ? [] : [correction])))],
    gone: [...isGone],
  };
}

function putInto(text: string, puts: readonly Put[]): string {
  let [out, at] = ['', 0];
  for (const { start, end, to } of [...puts].sort((one, other) => one.start - other.start)) {
    out += text.slice(at, start) + to;
    at = end;
  }
  return out + text.slice(at);
}

/** A sentence and the corrected one without the mark that ends both: a title or a slide may stand without it. */
function withoutSameEnd(before: string, after: string | null): [string, string | null] {
  const end = /[.!?…。！？]/;
  const bare = withoutEnd(before, end);
  if (after === null) return [bare, null];
  const bareAfter = withoutEnd(after, end);
  return before.slice(bare.length) === after.slice(bareAfter.length) ? [bare, bareAfter] : [before, after];
}

const LETTER = /[\p{L}\p{N}]/u;
/** Letters that no blank parts from the next word. */
const UNPARTED = /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}]/u;

/** Where words stand in a text by themselves: as no part of a longer word, figure or address. */
function placesOf(text: string, wanted: string): { start: number; end: number }[] {
  const places: { start: number; end: number }[] = [];
  if (!LETTER.test(wanted)) return places;
  for (let start = text.indexOf(wanted); start >= 0; start = text.indexOf(wanted, start + 1)) {
    const end = start + wanted.length;
    if (isEdge(text, start, -1) && isEdge(text, end, 1)) places.push({ start, end });
  }
  return places;
}

/** Whether a word or figure ends at a place, seen in a direction. */
function isEdge(text: string, at: number, step: 1 | -1): boolean {
  const [inside, outside] = step === 1 ? [text[at - 1]!, text[at]] : [text[at]!, text[at - 1]];
  if (outside === undefined || !LETTER.test(inside) || UNPARTED.test(inside)) return true;
  if (LETTER.test(outside)) return UNPARTED.test(outside);
  const beyond = step === 1 ? text[at + 1] : text[at - 2];
  return !(/\p{N}/u.test(inside) && /[.,:/]/.test(outside) && /\p{N}/u.test(beyond ?? ''));
}

/** Whether changed words that stand somewhere are those of the sentence that was corrected. */
function isMeant(text: string, span: { start: number; end: number }, change: WordChange, before: string): boolean {
  const around = sentenceAround(text, span);
  const [left, right] = [
    text.slice(around.start, span.start).match(WORDS)?.at(-1) ?? null,
    text.slice(span.end, around.end).match(WORDS)?.[0] ?? null,
  ];
  const isSame = (one: string | null, other: string | null) => one?.toLowerCase() === other?.toLowerCase();
  const besides = [isSame(left, change.left), isSame(right, change.right)];
  if (besides.every(Boolean)) return left !== null || right !== null;
  if (!isTelling(change)) return false;
  const own = new Set(tellingWords(change.from));
  const of = new Set(tellingWords(before).filter((word) => !own.has(word)));
  return tellingWords(text.slice(around.start, around.end)).some((word) => of.has(word));
}

const WORDS = /[\p{L}\p{N}][\p{L}\p{M}\p{N}'’_.,:-]{0,80}(?<=[\p{L}\p{N}])|[\p{L}\p{N}]/gu;

/** A figure, a date, a price; or a name, which does not begin the sentence. */
const isTelling = ({ from, left }: WordChange): boolean =>
  /\p{N}/u.test(from) || (left !== null && /\p{Lu}/u.test(from));

/** Words long enough to tell what a sentence is about. */
const tellingWords = (text: string): string[] =>
  wordsIn(text).filter((word) => word.length >= 4 || (word.length >= 2 && /\P{ASCII}/u.test(word)));

function sentenceAround(text: string, { start, end }: { start: number; end: number }): { start: number; end: number } {
  const before = [...text.slice(0, start).matchAll(/[.!?…]\s|[。！？\n]/g)].at(-1);
  const after = /[.!?…](?:\s|$)|[。！？\n]/.exec(text.slice(end));
  return {
    start: before ? before.index + before[0].length : 0,
    end: after ? end + after.index : text.length,
  };
}
