import type { Analysis } from '../extracts/analyse';
import { overlapOf } from '../extracts/rank';
import { overlaps, type Extract } from '../extracts/extracts';
import type { Draft, DraftSource } from './draft';

/** What a format says, before titles and keywords. */
export type Body = Pick<Draft, 'words' | 'parts' | 'sentences'>;

/** How much of its words a point may share with another. */
const SHARED = 0.4;

/** The best extracts that are unlike each other and unlike a text that stands beside them, at most so many, in the order of the piece. */
export function pointsBeside({ extracts, analysis }: DraftSource, beside: string, most: number): Extract[] {
  const points: Extract[] = [];
  for (const extract of extracts) {
    if (points.length === most) break;
    const content = contentOf(analysis, extract);
    const isAlike = points.some((one) => overlapOf(contentOf(analysis, one), content) >= SHARED);
    if (!isAlike && !beside.includes(extract.text.replace(/\s+/g, ' ').slice(1, 60))) points.push(extract);
  }
  return points.sort((one, other) => one.start - other.start);
}

const contentOf = ({ sentences }: Analysis, extract: Extract): Set<string> =>
  new Set(sentences.filter((one) => overlaps(one, extract)).flatMap(({ content }) => [...content]));

/** Marks that would begin a heading, a list or a quotation, or set words apart, are words in a text that is Markdown; an address stays. */
export const asMarkdown = (text: string): string =>
  text
    .split(/(\bhttps?:\/\/[^\s<>]+)/)
    .map((part, at) => (at % 2 === 1 ? part : part.replace(/([*`])|(?<![\p{L}\p{N}])_|_(?![\p{L}\p{N}])/gu, '\\$&')))
    .join('')
    .replace(/^([#>+-]|\d+[.)])(?=\s)/, '\\$1');
