import { wordsOfLanguage } from '../extracts/languages';
import { contentWords, wordsIn } from '../extracts/sentences';
import type { Analysis } from '../extracts/analyse';

/** A word or phrase a text is about, with its weight. */
interface Keyword {
  words: string;
  weight: number;
}

/** In how many of so many other texts a word stands. */
export interface OtherTexts {
  count: number;
  holding: (word: string) => number;
}

/** In how many of some texts each word stands. */
export function countOthers(texts: readonly string[]): OtherTexts {
  const times = new Map<string, number>();
  for (const text of texts) for (const word of new Set(wordsIn(text))) times.set(word, (times.get(word) ?? 0) + 1);
  return { count: texts.length, holding: (word) => times.get(word) ?? 0 };
}

const NO_OTHERS: OtherTexts = { count: 0, holding: () => 0 };
/** How often two words stand side by side to be a phrase. */
const PHRASE_TIMES = 2;

/**
 * What a text is about: its words and phrases of two by TF-IDF (K. Spärck Jones, 1972; with logarithmic frequency) against the
 * brand's other texts, or, where there are none, against its own paragraphs. A word that stands in a phrase is not named again.
 *
 * @returns at most `most`, the weightiest first, in small letters
 */
export function keywordsOf(
  { text, blocks, sentences, language }: Analysis,
  most: number,
  others: OtherTexts = NO_OTHERS,
): Keyword[] {
  const known = wordsOfLanguage(language);
  const times = new Map<string, number>();
  const paragraphs = new Map<string, Set<number>>();
  const note = (words: string, block: number) => {
    times.set(words, (times.get(words) ?? 0) + 1);
    const own = paragraphs.get(words);
    if (own) own.add(block);
    else paragraphs.set(words, new Set([block]));
  };
  for (const { start, end, block, traits } of sentences) {
    if (traits.has('foreign')) continue;
    const words = wordsIn(text.slice(start, end));
    const counts = new Set(contentWords(words, known).filter((word) => !/^[\p{N}.,]+$/u.test(word) && word.length > 2));
    words.forEach((word, at) => {
      if (!counts.has(word)) return;
      note(word, block);
      const next = words[at + 1];
      if (next !== undefined && counts.has(next)) note(`${word} ${next}`, block);
    });
  }
  const rarity = (words: string): number =>
    others.count > 0
      ? Math.log((1 + others.count) / (1 + Math.max(...words.split(' ').map(others.holding)))) + 0.2
      : Math.log((1 + blocks.length) / (1 + paragraphs.get(words)!.size)) + 0.5;
  const weighed = [...times]
    .filter(([words, count]) => !words.includes(' ') || count >= PHRASE_TIMES)
    .map(([words, count]) => ({ words, weight: (1 + Math.log(count)) * rarity(words) * (count > 1 ? 1 : 0.5) }))
    .sort((one, other) => other.weight - one.weight || one.words.localeCompare(other.words, 'en'));
  const phrases = weighed.filter(({ words }) => words.includes(' ')).slice(0, Math.ceil(most / 2));
  const inPhrase = new Set(phrases.flatMap(({ words }) => words.split(' ')));
  return [...phrases, ...weighed.filter(({ words }) => !words.includes(' ') && !inPhrase.has(words))]
    .sort((one, other) => other.weight - one.weight)
    .slice(0, most);
}
