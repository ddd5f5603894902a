import type { Clip } from '../clips/clips';
import { EXTRACT_KINDS, type Extract, type ExtractKind } from '../extracts/extracts';
import { PIECE_KINDS, type PieceKind } from '../pieces/kinds';
import { accept, refuse, type Result } from '../refusal';
import { FORMATS, NETWORK_KINDS, type Format, type NetworkKind } from '../rulesheets/types';

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

/** Limits of a fan-out. */
export const FAN_OUT_LIMITS = { name: 80, rows: 30, count: 12, offset: 365, gap: 90 } as const;

/** A fan-out as a brand has it. */
export interface BrandFanOut extends FanOut {
  /** The brand set it; otherwise it is the one that ships. */
  isOwn: boolean;
  /** It takes the place of a shipped one, which can hold again. */
  isShipped: boolean;
  /** Drawn up by itself for each new text of its kind. */
  isStanding: boolean;
}

/** Checks a fan-out that somebody wrote: every number whole and within its limits, every name known. */
export function readFanOut<F extends Pick<FanOut, 'name' | 'for' | 'rows'>>(typed: F): Result<F> {
  const name = typed.name.trim().replace(/\s+/g, ' ');
  if (name === '' || name.length > FAN_OUT_LIMITS.name)
    return refuse('badName', `A fan-out has a name of at most ${FAN_OUT_LIMITS.name} letters.`, 'name');
  if (typed.for !== null && !PIECE_KINDS.includes(typed.for))
    return refuse('badKind', 'A piece is of one of the kinds of the list.', 'for');
  if (typed.rows.length === 0 || typed.rows.length > FAN_OUT_LIMITS.rows)
    return refuse('badRows', `A fan-out has 1 to ${FAN_OUT_LIMITS.rows} rows.`, 'rows');
  for (const [at, row] of typed.rows.entries()) {
    const wrong = wrongIn(row);
    if (wrong) return refuse('badRow', `Row ${at + 1}: ${wrong}`, 'rows');
  }
  return accept({ ...typed, name });
}

function wrongIn({ network, format, count, source, offset, gap }: FanOutRow): string | null {
  const isIn = (value: number, least: number, most: number) =>
    Number.isInteger(value) && value >= least && value <= most;
  if (!NETWORK_KINDS.includes(network)) return 'that is no kind of network.';
  if (!FORMATS.includes(format)) return 'that is no format.';
  if (!isIn(count, 1, FAN_OUT_LIMITS.count)) return `it makes 1 to ${FAN_OUT_LIMITS.count} posts.`;
  if (!isIn(offset, 0, FAN_OUT_LIMITS.offset)) return `it begins 0 to ${FAN_OUT_LIMITS.offset} days later.`;
  if (!isIn(gap, 1, FAN_OUT_LIMITS.gap)) return `its posts lie 1 to ${FAN_OUT_LIMITS.gap} days apart.`;
  if (source.of === 'extracts')
    return source.kinds.every((kind) => EXTRACT_KINDS.includes(kind)) ? null : 'that is no kind of extract.';
  return source.of === 'clips' || source.of === 'whole' ? null : 'it has to say what it is made from.';
}
