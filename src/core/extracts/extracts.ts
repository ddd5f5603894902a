import { countText } from '../captions/count';
import { OF_CLOCKS, type Analysis, type ScoredSentence } from './analyse';
import { isAnswer, isOnlyAnswer } from './answers';
import { wordsOfLanguage, type LanguageWords } from './languages';
import { overlapOf } from './rank';
import { wordsIn } from './sentences';
import { leadOf, pointsOutside } from './standsAlone';
import { withoutEnds } from '../text/ends';
import { figureIn } from '../text/figures';

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

interface Candidate extends Extract {
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
  return picked.map(({ score: _score, content: _content, ...extract }) => extract);
}

/** Whether two stretches share anything. */
export const overlaps = (one: Taken, other: Taken): boolean => one.start < other.end && other.start < one.end;

const contentOfTaken = ({ sentences }: Analysis, taken: readonly Taken[]): Set<string>[] =>
  taken.map((span) => unionOf(sentences.filter((sentence) => overlaps(sentence, span))));

const unionOf = (sentences: readonly ScoredSentence[]): Set<string> =>
  new Set(sentences.flatMap(({ content }) => [...content]));

function candidatesOf(analysis: Analysis, onShare: (share: number) => void): Candidate[] {
  const { sentences } = analysis;
  const candidates: Candidate[] = [];
  for (let from = 0; from < sentences.length; from++) {
    onShare(from / sentences.length);
    const opening = openingOf(analysis, sentences[from]!);
    if (opening === null) continue;
    for (let to = from + 1; to <= Math.min(sentences.length, from + SENTENCES_AT_MOST); to++) {
      if (sentences[to - 1]!.block !== sentences[from]!.block) break;
      const candidate = candidateOf(analysis, opening, sentences.slice(from, to), sentences[from - 1]);
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
}

/** What keeps a sentence from standing alone, and may be mended by what follows it. */
const MENDED_BEHIND: ReadonlySet<string> = new Set(['half', 'ahead']);

/** How an extract begins that begins with a sentence; null where none does, whatever follows. */
function openingOf({ text, language }: Analysis, sentence: ScoredSentence): Opening | null {
  const { traits, isCut, end, opensAt = sentence.start } = sentence;
  if (isCut || traits.has('housekeeping') || traits.has('foreign')) return null;
  const start = opensAt + leadOf(text.slice(opensAt, end), language);
  const outside = pointsOutside(text.slice(start, end), language);
  return outside === null || MENDED_BEHIND.has(outside) ? { start, isAlone: outside === null } : null;
}

function candidateOf(
  analysis: Analysis,
  { start, isAlone }: Opening,
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
  if (sentences.some(({ traits, isCut }) => isCut || traits.has('housekeeping') || traits.has('foreign'))) return null;
  const text = analysis.text.slice(start, last.end);
  if (text.length < EXTRACT_LENGTH.ofQuestion || text.length > EXTRACT_LENGTH.most * 4) return null;
  // What leads to something that follows is no whole.
  if (/[:,;–—]$/u.test(text) || isOnlyNames(text)) return null;
  const length = countText(text, { unit: 'grapheme', wideWeight: 1, linkLength: null });
  const least = isQuestion ? EXTRACT_LENGTH.ofQuestion : EXTRACT_LENGTH.least;
  if (length < least || length > EXTRACT_LENGTH.most) return null;
  if (sentences.length === 1 ? !isAlone : pointsOutside(text, analysis.language)) return null;
  if (isOnlyAnswer(before, first)) return null;
  const mean = ranked.length === 0 ? QUESTION : ranked.reduce((sum, { score }) => sum + score, 0) / ranked.length;
  const leftOpen = sentences.length > 1 && last.traits.has('question');
  const score =
    mean *
    shapeOf(length) *
    (leftOpen ? 0.7 : 1) *
    (isAnswer(before, first) ? ANSWERS : 1) *
    EACH_MORE ** (sentences.length - 1) *
    0.95 ** (sentences.length - ranked.length);
  const { kind, reason } = kindOf(analysis, sentences, text);
  return {
    ...{ kind, reason, start, end: last.end, text, score, content: unionOf(sentences) },
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

function kindOf(
  analysis: Analysis,
  sentences: readonly ScoredSentence[],
  text: string,
): Pick<Extract, 'kind' | 'reason'> {
  const { blocks, spread, language } = analysis;
  const block = blocks[sentences[0]!.block]!;
  const known = wordsOfLanguage(language);
  const has = (trait: 'quote' | 'contrast' | 'address') => sentences.some(({ traits }) => traits.has(trait));
  if (block.kind === 'listItem')
    return {
      kind: 'listStep',
      reason: block.number === undefined ? 'an item of a list' : `step ${block.number} of a list`,
    };
  const asks = sentences[0]!.traits.has('question');
  if (asks && canBeAnswered(analysis, sentences[0]!))
    return { kind: 'question', reason: sentences.length > 1 ? 'a question and what follows' : 'a question' };
  const who = block.speaker ?? (has('quote') ? saidBy(text) : null);
  if (who !== null && !asks) return { kind: 'quote', reason: `said by ${who}` };
  const figure = figureIn(text);
  if (figure?.counts != null || (figure && /\P{N}$/u.test(figure.text)))
    return { kind: 'number', reason: `a number: ${[figure.text, figure.counts ?? ''].join(' ').trim()}` };
  const said = countedIn(text, known);
  if (said !== null) return { kind: 'number', reason: `a number: ${said}` };
  const about = topWords(sentences, spread);
  const heart = about.length > 0 ? `about ${about.join(', ')}` : 'at the heart of the text';
  if (has('contrast')) return { kind: 'point', reason: `a turn, ${heart}` };
  if (has('address')) return { kind: 'point', reason: `speaks to the reader, ${heart}` };
  return { kind: 'point', reason: heart };
}

/** Whether somebody who reads a question could answer it: it speaks to them, or of what holds for all, and not of those who ask. */
function canBeAnswered({ text, language }: Analysis, { start, end, traits }: ScoredSentence): boolean {
  const { reader } = wordsOfLanguage(language);
  if (wordsIn(text.slice(start, end)).some((word) => reader.has(word))) return true;
  return !traits.has('first') && !traits.has('telling') && (traits.has('general') || !traits.has('pronoun'));
}

/** Who is named beside words in quotation marks; null for nobody. */
function saidBy(text: string): string | null {
  const outside = text.replace(/[“„«「『"][^“”„«»「」『』"]*[”“»」』"]/gu, ' ');
  return /(?<!^)(?<![.!?]\s)\p{Lu}\p{L}+(?: \p{Lu}\p{L}+)*/u.exec(outside)?.[0] ?? null;
}

/** The first large number, or share, that is said in words, with what it counts; null where there is none: a small one is no news. */
function countedIn(text: string, known: LanguageWords): string | null {
  const words = text.split(/\s+/);
  const bare = (word: string) => withoutEnds(word, /[^\p{L}\p{M}\p{Cs}]/u);
  const at = words.findIndex(
    (word, place) =>
      known.striking.has(bare(word).toLowerCase()) && !OF_CLOCKS.has(bare(words[place + 1] ?? '').toLowerCase()),
  );
  if (at < 0) return null;
  const from = known.numbers.has(bare(words[at - 1] ?? '').toLowerCase()) ? at - 1 : at;
  const next = bare(words[at + 1] ?? '');
  // A number is news only with what it counts.
  const isOf = OF.has(next.toLowerCase());
  if (next === '' || /\P{L}$/u.test(words[at]!) || (known.stop.has(next.toLowerCase()) && !isOf)) return null;
  if (!isOf && FRACTIONS.has(bare(words[at]!).toLowerCase())) return null;
  const what = bare(words[at + 2] ?? '').toLowerCase();
  if (isOf && NOBODY.has(what)) return null;
  return words
    .slice(from, isOf ? at + (known.stop.has(what) ? 4 : 3) : at + 2)
    .map(bare)
    .join(' ');
}

/** Words behind a share that do not say what it is of. */
const NOBODY = new Set([
  '',
  'them',
  'it',
  'us',
  'you',
  'those',
  'these',
  'ihnen',
  'denen',
  'uns',
  'eux',
  'elles',
  'ellos',
]);

/** Shares, which are of something: “half cloud” counts nothing. */
const FRACTIONS = new Set(
  'half third quarter hälfte drittel viertel moitié tiers quart mitad tercio cuarto metade terço quarto'.split(' '),
);

/** Words between a share and what it is of. */
const OF = new Set(['of', 'der', 'des', 'von', 'de', 'du', 'del', 'do', 'da']);

/** The words of a stretch that the rest of the text comes back to. */
function topWords(sentences: readonly ScoredSentence[], spread: ReadonlyMap<string, number>): string[] {
  return [...unionOf(sentences)]
    .map((word) => ({ word, times: spread.get(word) ?? 0 }))
    .filter(({ times }) => times > 2)
    .sort((one, other) => other.times - one.times || one.word.localeCompare(other.word, 'en'))
    .slice(0, 2)
    .map(({ word }) => word);
}
