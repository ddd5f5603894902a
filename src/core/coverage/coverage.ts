import type { Format } from '../rulesheets/types';

/** How pieces are put in order. */
export const COVERAGE_ORDERS = ['newest', 'oldest', 'leastUsed', 'didBest'] as const;
export type CoverageOrder = (typeof COVERAGE_ORDERS)[number];

/** What people read for each. */
export const ORDER_LABELS: Record<CoverageOrder, string> = {
  newest: 'newest first',
  oldest: 'oldest first',
  leastUsed: 'least used first',
  didBest: 'by how they did',
};

/** Whether the columns are channels or formats. */
export const COVERAGE_BY = ['channels', 'formats'] as const;
export type CoverageBy = (typeof COVERAGE_BY)[number];

/** Live posts of a piece on a channel in a format. */
export interface Use {
  pieceId: string;
  channelId: string;
  format: Format;
  isPublished: boolean;
  count: number;
}

/** How often a piece was used in one place. */
export interface Cell {
  published: number;
  /** Not published yet. */
  planned: number;
}

/** The cells of each piece, by channel or format; a place where it was not used is absent. */
export function cellsOf(uses: readonly Use[], by: CoverageBy): Map<string, Map<string, Cell>> {
  const pieces = new Map<string, Map<string, Cell>>();
  for (const { pieceId, channelId, format, isPublished, count } of uses) {
    const place = by === 'channels' ? channelId : format;
    const cells = pieces.get(pieceId) ?? new Map<string, Cell>();
    const cell = cells.get(place) ?? { published: 0, planned: 0 };
    if (isPublished) cell.published += count;
    else cell.planned += count;
    pieces.set(pieceId, cells.set(place, cell));
  }
  return pieces;
}

/** A cell in words: “2 published, 1 planned”. */
export const cellWords = ({ published, planned }: Cell): string =>
  [published > 0 ? `${published} published` : '', planned > 0 ? `${planned} planned` : ''].filter(Boolean).join(', ') ||
  'not used';
