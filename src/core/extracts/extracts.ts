import { TELLS } from '../text/tells';
import { countText } from '../captions/count';
import { mayBeSaid, opensWith, type Analysis, type ScoredSentence } from './analyse';
import { isAnswer, isOnlyAnswer } from './answers';
import { canBeAnswered, kindOf } from './kindOf';
import { overlapOf } from './rank';
import { leadOf, pointsOutside, wordsToLookAt, type Word } from './standsAlone';

/** What an extract is, beside a clip. */
export const EXTRACT_KINDS = ['quote', 'point', 'number', 'question', 'listStep'] as const;
export type ExtractKind = (typeof EXTRACT_KINDS)[number];

/** What people read for each kind. */
export const EXTRACT_LABELS: Record<ExtractKind | 'clip', string> = {
  quote: 'quote',
  point: 'point',
  number: 'number',
  question: 'question',
  listStep: 'list step',
  clip: 'clip',
};

/** A part of a text worth its own post. */
export interface Extract {
  kind: ExtractKind;
  /** UTF-16 offsets of the text. */
  start: number;
  end: number;
  text: string;
  /** When it is said, in milliseconds; only of a timed text. */
  inMs?: number;
  outMs?: number;
  /** Why it was chosen, in a few words. */
  reason: string;
}

/** A stretch of text that is taken, or was turned down. */
export type Taken = Pick<Extract, 'start' | 'end'>;

/**
 * Graphemes of an extract.
 *
 * @internal
 */
export const EXTRACT_LENGTH = { least: 40, ofQuestion: 20, most: 300 } as const;
/** Sentences of an extract. */
const SENTENCES_AT_MOST = 3;
/** How much of its words an extract may share with another, as a share of the smaller one. */
const SHARED_AT_MOST = 0.4;
/** What being good weighs against being different (lambda of maximal marginal relevance). */
const GOOD_AGAINST_DIFFERENT = 0.85;
/** What each sentence after the first takes from an extract: most of what is worth a post is one. */
const EACH_MORE = 0.8;
/** What being only the answer to a question takes from an extract. */
const ANSWERS = 0.8;

interface Candidate extends Omit<Extract, 'reason'> {
  reasonOf: () => string;
  score: number;
  content: ReadonlySet<string>;
}

/**
 * Proposes the parts of a text worth their own post: one to three neighbouring sentences of one paragraph, 40 to 300 graphemes
 * (a question 20), that stand alone (`pointsOutside`), ranked by their sentences and picked for difference (maximal marginal
 * relevance: J. Carbonell and J. Goldstein, SIGIR 1998), the best first. Of a text that has fewer, fewer are proposed.
 *
 * @param most how many at most
 * @param taken what is accepted or was turned down already: it is not proposed again, nor what is much like it
 * @param onShare is told what share of the sentences was gone through
 */
export function findExtracts(
  analysis: Analysis,
  most = 12,
  taken: readonly Taken[] = [],
  onShare: (share: number) => void = () => {},
): Extract[] {
  const picked = pickDifferent(candidatesOf(analysis, onShare), most, taken, contentOfTaken(analysis, taken));
  return picked.map(({ score: _score, content: _content, reasonOf, ...extract }) => ({
    ...extract,
    reason: reasonOf(),
  }));
}

/** Whether two stretches share anything. */
export const overlaps = (one: Taken, other: Taken): boolean => one.start < other.end && other.start < one.end;

const contentOfTaken = ({ sentences }: Analysis, taken: readonly Taken[]): Set<string>[] =>
  taken.map((span) => unionOf(sentences.filter((sentence) => overlaps(sentence, span))));

const unionOf = (sentences: readonly ScoredSentence[]): Set<string> =>
  new Set(sentences.flatMap(({ content }) => [...content]));

function candidatesOf(analysis: Analysis, onShare: (share: number) => void): Candidate[] {
  const { sentences, text, language } = analysis;
  const candidates: Candidate[] = [];
  const looked = new Map<number, Word[]>();
  const wordsAt = (at: number): readonly Word[] => {
    const { start, opensAt = start, end } = sentences[at]!;
    const words = looked.get(at) ?? wordsToLookAt(text.slice(opensAt, end), language, false);
    looked.set(at, words);
    return words;
  };
  for (let from = 0; from < sentences.length; from++) {
    onShare(from / sentences.length);
    const opening = openingOf(analysis, sentences[from]!);
    if (opening === null) continue;
    const words = [...opening.words];
    for (let to = from + 1; to <= Math.min(sentences.length, from + SENTENCES_AT_MOST); to++) {
      if (sentences[to - 1]!.block !== sentences[from]!.block) break;
      if (to > from + 1) words.push(...wordsAt(to - 1));
      const candidate = candidateOf(analysis, { ...opening, words }, sentences.slice(from, to), sentences[from - 1]);
      if (candidate) candidates.push(candidate);
    }
  }
  return candidates.sort((one, other) => other.score - one.score || one.start - other.start);
}

/** How what begins with a sentence begins. */
interface Opening {
  /** Without the words that only tie it to what was said before. */
  start: number;
  /** The sentence stands alone by itself. */
  isAlone: boolean;
  /** The words as they are looked at: of the sentence, then of all that is said. */
  words: readonly Word[];
}

/** What keeps a sentence from standing alone, and may be mended by what follows it. */
const MENDED_BEHIND: ReadonlySet<string> = new Set(['half', 'ahead']);

/** How an extract begins that begins with a sentence; null where none does, whatever follows. */
function openingOf({ text, language }: Analysis, sentence: ScoredSentence): Opening | null {
  if (!mayBeSaid(sentence)) return null;
  const { end, opensAt = sentence.start } = sentence;
  const start = opensAt + leadOf(text.slice(opensAt, end), language);
  const words = wordsToLookAt(text.slice(start, end), language, true);
  const outside = pointsOutside(text.slice(start, end), language, words);
  return outside === null || MENDED_BEHIND.has(outside) ? { start, isAlone: outside === null, words } : null;
}

function candidateOf(
  analysis: Analysis,
  { start, isAlone, words }: Opening,
  sentences: readonly ScoredSentence[],
  before: ScoredSentence | undefined,
): Candidate | null {
  const [first, last] = [sentences[0]!, sentences.at(-1)!];
  const ranked = sentences.filter(({ score }) => score > 0);
  const isQuestion = sentences.length === 1 && first.traits.has('question');
  if (ranked.length === 0 && !isQuestion) return null;
  // Who asks somebody else speaks to them; what they ask of everybody may be asked of a reader.
  if (sentences.some(({ traits }) => traits.has('asking') && (!traits.has('question') || traits.has('address'))))
    return null;
  if (isQuestion && !canBeAnswered(analysis, first)) return null;
  if (!sentences.every(mayBeSaid)) return null;
  const text = analysis.text.slice(start, last.end);
  if (text.length < EXTRACT_LENGTH.ofQuestion || text.length > EXTRACT_LENGTH.most * 4) return null;
  // What leads to something that follows is no whole.
  if (/[:,;–—]$/u.test(text) || isOnlyNames(text) || (isItem(analysis, first) && onlyCounts(text))) return null;
  const length = countText(text, { unit: 'grapheme', wideWeight: 1, linkLength: null });
  const least = isQuestion ? EXTRACT_LENGTH.ofQuestion : EXTRACT_LENGTH.least;
  if (length < least || length > EXTRACT_LENGTH.most) return null;
  if (sentences.length === 1 ? !isAlone : pointsOutside(text, analysis.language, words)) return null;
  if (isOnlyAnswer(before, first)) return null;
  const mean = ranked.length === 0 ? QUESTION : ranked.reduce((sum, { score }) => sum + score, 0) / ranked.length;
  const leftOpen = sentences.length > 1 && last.traits.has('question');
  const score =
    mean *
    opensWith(first) *
    shapeOf(length) *
    (leftOpen ? 0.7 : 1) *
    (isAnswer(before, first) ? ANSWERS : 1) *
    EACH_MORE ** (sentences.length - 1) *
    0.95 ** (sentences.length - ranked.length);
  const { kind, reasonOf } = kindOf(analysis, sentences, text);
  return {
    ...{ kind, reasonOf, start, end: last.end, text, score, content: unionOf(sentences) },
    ...(first.inMs !== undefined && last.outMs !== undefined && { inMs: first.inMs, outMs: last.outMs }),
  };
}

/** Share of the longer words from which what has no mark at its end only names somebody or something. */
const NAMES = 0.7;

function isOnlyNames(text: string): boolean {
  if (/[.!?…。！？]["”’»)]*$/u.test(text)) return false;
  const long = wordsWithCase(text).filter((word) => word.length > 3);
  return long.filter((word) => /^\p{Lu}/u.test(word)).length >= long.length * NAMES;
}

/** Whether an item of a list counts something and says nothing of it: “12 800 new ropes in 40 harbours.” */
export const onlyCounts = (item: string): boolean => COUNTS.test(item) && !TELLS.test(item);

const COUNTS =
  /^(?:(?:more than|over|almost|nearly|about|mehr als|über|fast|rund|plus de|près de|environ|más de|casi|unos|mais de|quase|cerca de) )?\p{N}/iu;

const isItem = ({ blocks }: Analysis, { block }: ScoredSentence): boolean => blocks[block]!.kind === 'listItem';

const wordsWithCase = (text: string): string[] => text.match(/\p{L}[\p{L}\p{M}’'-]*/gu) ?? [];

/** What a question is worth that says too little to be ranked. */
const QUESTION = 0.8;

/** What an extract is worth by its length: a very short one says little, a long one is skipped. */
const shapeOf = (length: number): number =>
  length < 60 ? 0.75 : length <= 120 ? 0.92 : length <= 170 ? 1 : length <= 230 ? 0.78 : 0.7;

/** What an extract has to be worth after so many, as a share of the best of its text: less is not worth a post. */
const FLOOR = { after: 10, share: 0.35 } as const;

function pickDifferent(
  candidates: readonly Candidate[],
  most: number,
  taken: readonly Taken[],
  contents: readonly ReadonlySet<string>[],
): Candidate[] {
  const best = candidates[0]?.score ?? 1;
  let left = candidates
    .filter((candidate) => !taken.some((span) => overlaps(candidate, span)))
    .map((candidate) => ({
      candidate,
      alike: Math.max(0, ...contents.map((own) => overlapOf(own, candidate.content))),
    }));
  const picked: Candidate[] = [];
  const kinds = new Set<ExtractKind>();
  while (picked.length < most) {
    const least = picked.length < FLOOR.after ? 0 : best * FLOOR.share;
    left = left.filter(({ candidate, alike }) => alike < SHARED_AT_MOST && candidate.score >= least);
    if (left.length === 0) break;
    const worth = ({ candidate, alike }: (typeof left)[number]) =>
      GOOD_AGAINST_DIFFERENT * (candidate.score / best) -
      (1 - GOOD_AGAINST_DIFFERENT) * alike +
      (kinds.has(candidate.kind) ? 0 : 0.05);
    const next = left.reduce((one, other) => (worth(other) > worth(one) ? other : one)).candidate;
    picked.push(next);
    kinds.add(next.kind);
    for (const entry of left)
      entry.alike = overlaps(entry.candidate, next)
        ? 1
        : Math.max(entry.alike, overlapOf(entry.candidate.content, next.content));
  }
  return picked;
}
