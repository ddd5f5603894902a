/**
 * Letters of scripts whose words are not set apart by spaces, or whose vowels are marks: Hebrew to Khmer and beyond, kana, Han,
 * Hangul. The same ranges stand in the database's `search_grams`.
 */
const RUN = /[\u0590-\u1cff\u3005-\u3007\u3040-\ud7af\uf900-\ufdff\ufe70-\ufefe\u{20000}-\u{3ffff}]+/gu;

/** Words looked for at once. */
const WORDS_LIMIT = 8;

/** One thing that a text has to hold: a word as it begins, or the letters of a run. */
interface Term {
  word: string | null;
  grams: string[];
}

/** The pairs of letters of a run; its one letter where it is no longer. */
function gramsOf(run: string): string[] {
  const letters = [...run];
  if (letters.length === 1) return letters;
  return letters.slice(1).map((letter, index) => `${letters[index]!}${letter}`);
}

function termsOf(words: string): Term[] {
  const plain = words.normalize('NFC').toLowerCase();
  const runs = [...plain.matchAll(RUN)].map(([run]) => ({ word: null, grams: gramsOf(run) }));
  const others = (plain.replace(RUN, ' ').match(/[\p{L}\p{N}\p{M}]+/gu) ?? []).map((word) => ({ word, grams: [] }));
  return [...others, ...runs].slice(0, WORDS_LIMIT);
}

/**
 * What a text index is asked for all of these words (PostgreSQL's tsquery); empty for none. The last word typed counts as a
 * beginning; of scripts without spaces every pair of letters has to be there.
 *
 * @example
 * searchQuery('open Dom') // "'open' & 'dom':*"
 * searchQuery('天文台') // "'天文' & '文台'"
 */
export function searchQuery(words: string): string {
  const terms = termsOf(words);
  const last = terms.findLastIndex(({ word }) => word !== null);
  return terms
    .flatMap(({ word, grams }, index) =>
      word === null ? grams.map((gram) => `'${gram}'`) : [`'${word}'${index === last ? ':*' : ''}`],
    )
    .join(' & ');
}
