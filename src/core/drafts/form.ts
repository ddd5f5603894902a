import { countText } from '../captions/count';
import type { ScoredSentence } from '../extracts/analyse';
import type { TextFieldRule } from '../rulesheets/types';
import type { Draft, DraftOrder, DraftSource } from './draft';
import { said, type Said } from './saying';
import { titlesFrom } from './titles';

/** What a form adds to a caption, before titles and keywords. */
export type Body = Pick<Draft, 'words' | 'parts' | 'sentences'>;

/** Points of a thread, of a letter, sentences below a heading of an outline, and questions of an agenda, at most. */
export const POINTS = { thread: 7, letter: 3, outline: 3, agenda: 8 } as const;

/** The best extracts to make points of, in the order of the text. */
export function pointsOf({ extracts }: DraftSource, { from }: DraftOrder, most: number) {
  const chosen = [...from, ...extracts.filter((extract) => !from.some(({ start }) => start === extract.start))].slice(
    0,
    most,
  );
  return chosen.sort((one, other) => one.start - other.start);
}

/** A title nobody has yet: from the extract, else from the best sentences, else that of the piece. Where it can, before the cut. */
export function titleOf(source: DraftSource, { from, clip, titlesTaken }: DraftOrder, rule: TextFieldRule): Said {
  const { analysis, title } = source;
  const taken = new Set(titlesTaken.map((one) => one.toLowerCase()));
  const limit = rule.fold?.units ?? rule.limit;
  const stretch = clip ?? from[0];
  const inside = stretch
    ? analysis.sentences.filter(({ start, end, opensAt = start }) => opensAt >= stretch.start && end <= stretch.end)
    : [];
  const isWhole = inside.length === 0;
  if (isWhole && !taken.has(title.toLowerCase()) && countText(title, rule) <= limit)
    return { text: title, origin: 'title' };
  const byScore = (list: readonly ScoredSentence[]) => [...list].sort((one, other) => other.score - one.score);
  for (const sentence of [...byScore(inside), ...byScore(analysis.sentences)]) {
    if (sentence.traits.has('housekeeping') || sentence.traits.has('leaning')) continue;
    const free = titlesFrom(said(source, sentence).text, limit, rule).find((one) => !taken.has(one.toLowerCase()));
    if (free !== undefined) return { text: free, origin: 'piece' };
  }
  return { text: shortened(title, rule.limit, rule), origin: 'title' };
}

/** A text by as many of its words as fit. */
function shortened(text: string, limit: number, rule: TextFieldRule): string {
  if (countText(text, rule) <= limit) return text;
  const words = text.split(/\s+/);
  for (let count = words.length - 1; count > 0; count--) {
    const short = `${words.slice(0, count).join(' ')}…`;
    if (countText(short, rule) <= limit) return short;
  }
  return '';
}
