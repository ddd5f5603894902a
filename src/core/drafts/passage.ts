import type { ScoredSentence } from '../extracts/analyse';
import type { Taken } from '../extracts/extracts';
import type { DraftSource } from './draft';

/** Sentences of a passage: fewer tell nothing, more are an article. */
const SENTENCES = { least: 6, most: 14 } as const;
/** What an opening takes that points to something not said yet, or says next to nothing. */
const WEAK_OPENING = 0.7;
/** Words of its own from which an opening says something. */
const LEAST_CONTENT = 3;
/** What a paragraph more takes from a passage: one told through is better than two begun. */
const EACH_MORE = 0.95;

/** A stretch of a text that can stand for itself, paragraph by paragraph. */
type Passage = ScoredSentence[][];

/**
 * The passages of a text that can be told through from their beginning: whole paragraphs that follow each other, of 6 to 14
 * sentences, not begun by leaning on what was said before and not about the room. The best first, by the mean of what their
 * sentences are worth.
 *
 * @param about a stretch it has to hold; null for any
 */
export function passagesOf({ analysis }: DraftSource, about: Taken | null): Passage[] {
  const paragraphs = paragraphsOf(analysis.sentences);
  const found: { passage: Passage; worth: number }[] = [];
  for (let from = 0; from < paragraphs.length; from++) {
    if (opensBadly(paragraphs[from]![0]!) || analysis.blocks[paragraphs[from]![0]!.block]?.kind !== 'paragraph')
      continue;
    for (let to = from + 1; to <= paragraphs.length; to++) {
      const passage = paragraphs.slice(from, to);
      const sentences = passage.flat();
      const follows = to === from + 1 || paragraphs[to - 1]![0]!.block === paragraphs[to - 2]![0]!.block + 1;
      if (!follows || sentences.length > SENTENCES.most || sentences.some(({ traits }) => traits.has('housekeeping')))
        break;
      if (sentences.length < SENTENCES.least || !holds(sentences, about)) continue;
      const mean = sentences.reduce((sum, { score }) => sum + score, 0) / sentences.length;
      found.push({ passage, worth: mean * EACH_MORE ** (passage.length - 1) * openingOf(sentences[0]!) });
    }
  }
  return found.sort((one, other) => other.worth - one.worth).map(({ passage }) => passage);
}

function paragraphsOf(sentences: readonly ScoredSentence[]): ScoredSentence[][] {
  const paragraphs: ScoredSentence[][] = [];
  for (const sentence of sentences) {
    const last = paragraphs.at(-1);
    if (last && last[0]!.block === sentence.block) last.push(sentence);
    else paragraphs.push([sentence]);
  }
  return paragraphs;
}

const openingOf = ({ traits, content }: ScoredSentence): number =>
  traits.has('pronoun') || content.size < LEAST_CONTENT ? WEAK_OPENING : 1;

const opensBadly = ({ traits, isCut }: ScoredSentence): boolean => traits.has('leaning') || isCut === true;

const holds = (sentences: readonly ScoredSentence[], about: Taken | null): boolean =>
  about === null || (sentences[0]!.start <= about.start && sentences.at(-1)!.end >= about.end);
