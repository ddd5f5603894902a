import type { ReadingText } from '../reading/readingText';
import type { Cue } from '../reading/subtitles';
import { guessLanguage, wordsOfLanguage, type LanguageWords } from './languages';
import { textRank } from './rank';
import { contentWords, sentencesOf, wordsIn, type Sentence } from './sentences';

/** A sentence with what decides whether it is worth a post. */
export interface ScoredSentence extends Sentence {
  /** What it is about. */
  content: ReadonlySet<string>;
  /** 0 for one that says too little to be ranked. */
  score: number;
  traits: ReadonlySet<Trait>;
}

/** What speaks for a sentence, or against it. */
export type Trait =
  | 'number'
  | 'striking'
  | 'question'
  | 'contrast'
  | 'address'
  | 'general'
  | 'comparison'
  | 'quote'
  | 'closing'
  | 'telling'
  | 'pronoun'
  | 'leaning'
  | 'housekeeping'
  | 'foreign';

/** A text cut into ranked sentences. */
export interface Analysis {
  text: string;
  blocks: ReadingText['blocks'];
  sentences: readonly ScoredSentence[];
  language: string | null;
  /** In how many sentences a word stands. */
  spread: ReadonlyMap<string, number>;
  isWordTimed: boolean;
}

/** What a trait does to the centrality of a sentence. */
const WEIGHTS: Record<Trait, number> = {
  number: 1,
  striking: 1.25,
  question: 1.05,
  contrast: 1.15,
  address: 1.2,
  general: 1.3,
  comparison: 1.25,
  quote: 1,
  closing: 1.2,
  telling: 0.75,
  pronoun: 0.8,
  leaning: 0.6,
  housekeeping: 0.1,
  foreign: 0,
};

/** How much centrality decides beside what speaks for a sentence: its weight as an exponent. */
const CENTRALITY = 0.6;

/** Content words from which a sentence is ranked. */
const LEAST_CONTENT = 4;

/**
 * Ranks the sentences of a text: by how central they are (`textRank`), weighted by what speaks for them: that they hold for all,
 * hold one thing against another, turn against what was said, speak to the reader, tell a large number, or close a paragraph; less
 * where they tell what somebody did, lean on the sentence before or are about the room. The weights were found on texts in which
 * the sentences worth a post were marked by hand (`bench/repurpose.ts`).
 *
 * @param language absent to be guessed
 */
export function analyse(
  reading: Pick<ReadingText, 'text' | 'blocks'> & { cues?: readonly Cue[]; isWordTimed?: boolean },
  language?: string | null,
): Analysis {
  const { text, blocks, cues = [], isWordTimed = false } = reading;
  const spoken = language ?? guessLanguage(text);
  const known = wordsOfLanguage(spoken);
  const sentences = sentencesOf(reading, spoken, cues);
  const words = sentences.map(({ start, end, opensAt = start }) => wordsIn(text.slice(opensAt, end)));
  const content = words.map((own) => contentWords(own, known));
  const central = textRank(content.map((own) => (own.length < LEAST_CONTENT ? [] : own)));
  const spread = new Map<string, number>();
  const scored = sentences.map((sentence, at) => {
    const own = new Set(content[at]);
    for (const word of own) spread.set(word, (spread.get(word) ?? 0) + 1);
    const traits = traitsOf(text.slice(sentence.start, sentence.end), words[at]!, known);
    if (blocks[sentence.block]?.language !== undefined) traits.add('foreign');
    const [before, after] = [sentences[at - 2], sentences[at + 1]];
    if (before?.block === sentence.block && after?.block !== sentence.block) traits.add('closing');
    return {
      ...sentence,
      content: own,
      traits,
      score: [...traits].reduce((score, trait) => score * WEIGHTS[trait], central[at]! ** CENTRALITY),
    };
  });
  return { text, blocks, sentences: scored, language: spoken, spread, isWordTimed };
}

const QUESTION = /[?？؟]["”’»)\]]*$/u;
const SPEECH = /[“„«「『"][^“”„«»「」『』"]{12,}[”“»」』"]/u;

/** Words that lean on what was said, unless they begin a question. */
const ASKING = new Set(['which', 'who', 'whose', 'where', 'qui', 'que', 'quien', 'cual', 'quem', 'qual']);

function traitsOf(sentence: string, words: readonly string[], known: LanguageWords): Set<Trait> {
  const traits = new Set<Trait>();
  if (/\p{N}/u.test(sentence) || words.some((word) => known.numbers.has(word))) traits.add('number');
  if (/\p{N}{3,}|\p{N}\s?[%‰]/u.test(sentence) || words.some((word) => known.striking.has(word)))
    traits.add('striking');
  if (QUESTION.test(sentence)) traits.add('question');
  if (words.filter((word) => known.general.has(word)).length > 0) traits.add('general');
  if (words.some((word) => known.comparing.has(word)) || /[;:]\s/u.test(sentence)) traits.add('comparison');
  if (words.some((word) => known.contrast.has(word))) traits.add('contrast');
  if (words.some((word) => known.address.has(word))) traits.add('address');
  if (SPEECH.test(sentence)) traits.add('quote');
  if (words.some((word) => known.pronouns.has(word))) traits.add('pronoun');
  const [first] = words;
  if (first !== undefined && known.telling.has(first)) traits.add('telling');
  const asks = traits.has('question') && first !== undefined && ASKING.has(first);
  if (first !== undefined && known.leaning.has(first) && !asks) traits.add('leaning');
  if (known.housekeeping.test(sentence)) traits.add('housekeeping');
  return traits;
}
