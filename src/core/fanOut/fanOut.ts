import type { Clip } from '../extracts/clips';
import { overlaps, type Extract, type ExtractKind } from '../extracts/extracts';
import type { PieceKind } from '../pieces/kinds';
import type { Format, NetworkKind } from '../rulesheets/types';

/** What the posts of a row are made from: extracts of some kinds (any where none is named), clips, or the piece as a whole. */
export type RowSource = { of: 'extracts'; kinds: readonly ExtractKind[] } | { of: 'clips' } | { of: 'whole' };

/** A row of a fan-out: so many posts of a format on every network of a kind. */
export interface FanOutRow {
  network: NetworkKind;
  format: Format;
  count: number;
  source: RowSource;
  /** Days after the anchor from which its posts may be published. */
  offset: number;
  /** Days that two of its posts are apart, at least. */
  gap: number;
}

/** A reusable plan that turns one kind of piece into posts. */
export interface FanOut {
  /** Lower-case letters and hyphens; names it on the command line. */
  slug: string;
  name: string;
  /** The kind of piece it is for; null for any. */
  for: PieceKind | null;
  rows: readonly FanOutRow[];
}

/** A post that a row asks for, with what it is made from. */
export interface DealtPost {
  row: number;
  /** Which of its row, counted from 0. */
  number: number;
  /** Empty for the whole piece. */
  from: readonly Extract[];
  clip: Clip | null;
}

/**
 * Deals extracts and clips to the posts of one row on one channel: the best of the kinds the row asks for that were not used on that
 * channel. A row with fewer than it asks for makes fewer. Of a piece without times, what asks for clips takes extracts.
 *
 * @param taken what the channel has already, of this piece; grows by what is dealt
 * @param dealt how often a stretch was dealt to any channel, by where it begins: what was not comes first; grows
 */
export function dealRow(
  row: FanOutRow,
  at: number,
  extracts: readonly Extract[],
  clips: readonly Clip[],
  taken: { start: number; end: number }[],
  dealt: Map<number, number> = new Map(),
): DealtPost[] {
  const isFree = (one: { start: number; end: number }) => !taken.some((span) => overlaps(span, one));
  const posts: DealtPost[] = [];
  for (let number = 0; number < row.count; number++) {
    if (row.source.of === 'whole') {
      posts.push({ row: at, number, from: [], clip: null });
      continue;
    }
    const { source } = row;
    const kinds = source.of === 'extracts' ? source.kinds : [];
    const able: readonly (Extract | Clip)[] =
      source.of === 'clips' && clips.length > 0
        ? clips
        : extracts.filter(({ kind }) => kinds.length === 0 || kinds.includes(kind));
    const times = ({ start }: { start: number }) => dealt.get(start) ?? 0;
    const next = able
      .filter(isFree)
      .reduce<Extract | Clip | undefined>((one, other) => (!one || times(other) < times(one) ? other : one), undefined);
    if (!next) break;
    taken.push({ start: next.start, end: next.end });
    dealt.set(next.start, times(next) + 1);
    posts.push(
      'kind' in next ? { row: at, number, from: [next], clip: null } : { row: at, number, from: [], clip: next },
    );
  }
  return posts;
}

/** Formats that are made of a piece as a whole. */
const OF_THE_WHOLE: readonly Format[] = ['thread', 'carousel', 'newsletter', 'article', 'longVideo', 'live'];

/** The row that makes one post of a format on a kind of network. */
export const singleRow = (network: NetworkKind, format: Format): FanOutRow => ({
  ...{ network, format, count: 1, offset: 0, gap: 7 },
  source: OF_THE_WHOLE.includes(format)
    ? { of: 'whole' }
    : format === 'shortVideo'
      ? { of: 'clips' }
      : { of: 'extracts', kinds: [] },
});
