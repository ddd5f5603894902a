import { wordsOfLanguage } from '../extracts/languages';
import { contentWords, wordsIn } from '../extracts/sentences';
import { formatRule } from '../rulesheets/types';
import { chanceOf } from './chance';
import type { DraftOrder, DraftShelf, DraftSource } from './draft';

/** Hashtags picked at most. */
const HASHTAGS = 4;
/** Letters in which two words have to begin alike to be of one stem. */
const STEM = 4;

/** Hashtags of the shelf of which every word stands in what a post says; the longer ones first, for they say more. */
export function hashtagsOf(
  text: string,
  source: DraftSource,
  shelf: DraftShelf,
  { sheet, format, seed }: DraftOrder,
): string[] {
  const most = Math.min(HASHTAGS, sheet.hashtagLimit ?? HASHTAGS);
  if (most === 0 || shelf.hashtags.length === 0 || !formatRule(sheet, format)) return [];
  const known = wordsOfLanguage(source.analysis.language);
  const words = contentWords(wordsIn(text), known);
  const joined = words.join('');
  const isSaid = (word: string) =>
    words.some((own) => own === word || (word.length >= STEM && own.length >= STEM && isOneStem(own, word)));
  return shelf.hashtags
    .map((tag) => ({ tag, parts: partsOf(tag) }))
    .filter(
      ({ tag, parts }) => parts.every(isSaid) || (tag.length > STEM && joined.includes(tag.slice(1).toLowerCase())),
    )
    .sort((one, other) => other.parts.length - one.parts.length || chanceOf(seed, one.tag) - chanceOf(seed, other.tag))
    .slice(0, most)
    .map(({ tag }) => tag);
}

/** Whether one of two words is the other with an ending of at most three letters. */
function isOneStem(one: string, other: string): boolean {
  const [short, long] = one.length < other.length ? [one, other] : [other, one];
  return long.startsWith(short.slice(0, -1)) && long.length - short.length <= 3;
}

/** The words that a hashtag is made of: “#NightSky” says “night” and “sky”. */
const partsOf = (tag: string): string[] =>
  tag
    .slice(1)
    .replace(/([\p{Ll}\p{N}])(\p{Lu})/gu, '$1 $2')
    .toLowerCase()
    .split(/[\s_]+/);
