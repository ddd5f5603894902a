import type { CountRule } from '../rulesheets/types';
import { countText } from '../captions/count';
import { withoutEnd } from '../text/ends';

const CLAUSE = /(?:[,;:–—]|\s[–—-])\s/u;
/** Words of a title, at least. */
const LEAST_WORDS = 3;

/**
 * Titles that a sentence gives: the sentence itself, and its clauses, without the mark at its end, as far as they are short
 * enough; the longest first. Nothing is cut inside a clause.
 *
 * @param limit in the units of the rule
 */
export function titlesFrom(sentence: string, limit: number, rule: CountRule): string[] {
  const clauses = sentence.split(CLAUSE);
  const wanted = [
    sentence,
    ...clauses.map((_clause, at) => clauses.slice(0, at + 1).join(', ')).reverse(),
    ...clauses.slice(1),
  ];
  const titles = wanted
    .map(asTitle)
    .filter(
      (title) => title.split(/\s+/).length >= LEAST_WORDS && isBalanced(title) && countText(title, rule) <= limit,
    );
  return [...new Set(titles)];
}

const MARK = /[.,;:…\s–—-]/u;

/** A clause as a title: it begins large, stands without quotation marks around it, and ends without a mark unless it asks. */
function asTitle(clause: string): string {
  const begun = clause.trim().replace(/^[“„«"'‘(]+/u, '');
  const bare = withoutEnd(withoutEnd(withoutEnd(begun, MARK), /[”»"’)]/u), MARK);
  return bare.replace(/^\p{Ll}/u, (letter) => letter.toUpperCase());
}

/** Whether every quotation or bracket that is opened is closed. An apostrophe is none. */
const isBalanced = (title: string): boolean =>
  [
    [/“/g, /”/g],
    [/(?<!\p{L})‘/gu, /’(?!\p{L})/gu],
    [/«/g, /»/g],
    [/\(/g, /\)/g],
  ].every(([open, close]) => title.match(open!)?.length === title.match(close!)?.length) &&
  (title.match(/"/g)?.length ?? 0) % 2 === 0;
