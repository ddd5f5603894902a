import type { LeftOut } from './leftOut';
import type { ReadAs } from './readAs';

/** How a text is to be read, beside the text itself; kept with it. */
export interface HowRead {
  /** As Markdown or as plain text; null for whichever it looks like. */
  as: ReadAs | null;
  /** Names of what is taken in that would be left out (`nameOfLeftOut`). */
  taken: readonly string[];
  /** What was left out when it was brought in, and is no part of the text any more. */
  leftOut: readonly LeftOut[];
}

/** A text that is read as it looks. */
export const READ_AS_IT_LOOKS: HowRead = { as: null, taken: [], leftOut: [] };

const EVIDENCE: readonly [pattern: RegExp, weight: number][] = [
  [/^---\n[\s\S]{0,4000}?\n---\n/, 2],
  [/^ {0,3}#{1,6} \S/gm, 2],
  [/^ {0,3}(?:```|~~~)/gm, 1],
  [/\[[^\][\n]{1,200}\]\((?:https?:|\/|#|\.|mailto:)[^()\s]*\)/g, 2],
  [/!\[[^\]\n]{0,200}\]\([^()\s]+\)/g, 2],
  [/^ {0,3}\[[^\]\n]{1,100}\]: \S+/gm, 2],
  [/\*\*[^\s*][^*\n]{0,200}\*\*|__[^\s_][^_\n]{0,200}__/g, 1],
  [/^\|?(?: *:?-{3,}:? *\|)+(?: *:?-{3,}:? *)?$/gm, 2],
  [/^> \S/gm, 0.5],
];
/** Weight from which a text is Markdown. */
const ENOUGH = 2;

/**
 * Whether a text shows that it is Markdown: a heading, a link, a table or front matter, or emphasis and fences more than
 * once. Indents, lists and single stars show nothing: plain text has them too.
 */
export function looksLikeMarkdown(source: string): boolean {
  let weight = 0;
  for (const [pattern, each] of EVIDENCE) {
    weight += Math.min(2, source.match(pattern)?.length ?? 0) * each;
    if (weight >= ENOUGH) return true;
  }
  return false;
}
