import type { ReadingText } from '../pieces/readingText';
import type { Cue } from '../pieces/subtitles';
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
export type Trait = 'number' | 'question' | 'contrast' | 'address' | 'quote' | 'pronoun' | 'leaning' | 'housekeeping';

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
  number: 1.25,
  question: 1.1,
  contrast: 1.15,
  address: 1.1,
  quote: 1.15,
  pronoun: 0.8,
  leaning: 0.6,
  housekeeping: 0.1,
};

/** Content words from which a sentence is ranked. */
const LEAST_CONTENT = 4;

/**
 * Ranks the sentences of a text: by how central they are (`textRank`), weighted by what speaks for them: numbers, questions,
 * contrast, address, speech; less where they lean on the sentence before or are about the room.
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
  const words = sentences.map(({ start, end }) => wordsIn(text.slice(start, end)));
  const content = words.map((own) => contentWords(own, known));
  const central = textRank(content.map((own) => (own.length < LEAST_CONTENT ? [] : own)));
  const spread = new Map<string, number>();
  const scored = sentences.map((sentence, at) => {
    const own = new Set(content[at]);
    for (const word of own) spread.set(word, (spread.get(word) ?? 0) + 1);
    const traits = traitsOf(text.slice(sentence.start, sentence.end), words[at]!, known);
    return {
      ...sentence,
      content: own,
      traits,
      score: [...traits].reduce((score, trait) => score * WEIGHTS[trait], central[at]!),
    };
  });
  return { text, blocks, sentences: scored, language: spoken, spread, isWordTimed };
}

const QUESTION = /[?？؟]["”’»)\]]*$/u;
const SPEECH = /[“„«「『"][^“”„«»「」『』"]{12,}[”“»」』"]/u;

/** Words that lean on what was said, unless they begin a question. */
const ASKING = new Set(['which', 'who', 'whose', 'where', 'qui', 'que', 'quien', 'cual', 'quem', 'qual']);

function traitsOf(sentence: string, words: readonly string[], known: LanguageWords): ReadonlySet<Trait> {
  const traits = new Set<Trait>();
  if (/\p{N}/u.test(sentence) || words.some((word) => known.numbers.has(word))) traits.add('number');
  if (QUESTION.test(sentence)) traits.add('question');
  if (words.some((word) => known.contrast.has(word))) traits.add('contrast');
  if (words.some((word) => known.address.has(word))) traits.add('address');
  if (SPEECH.test(sentence)) traits.add('quote');
  if (words.some((word) => known.pronouns.has(word))) traits.add('pronoun');
  const [first] = words;
  const asks = traits.has('question') && first !== undefined && ASKING.has(first);
  if (first !== undefined && known.leaning.has(first) && !asks) traits.add('leaning');
  if (known.housekeeping.test(sentence)) traits.add('housekeeping');
  return traits;
}
