import { cellsOf, type Cell, type CoverageBy, type CoverageOrder } from '@/core/coverage/coverage';
import { noWork, progressOf, type WorkProgress } from '@/core/prep/progress';
import { countCovered, listCovered, listUses, type CoveragePlace, type CoveredPiece } from '@/data/coverage/coverage';
import type { Queryable } from '@/data/database/db';
import { countWorkOfPieces } from '@/data/prep/steps';

/** A row of the coverage. */
export interface CoverageRow extends CoveredPiece {
  /** By channel id or format; absent where it was not used. */
  cells: Record<string, Cell>;
  /** Of the work on its posts to come. */
  progress: WorkProgress[];
}

/** A page of the coverage. */
export interface Coverage {
  rows: CoverageRow[];
  /** To ask for what follows; null at the end. */
  next: string | null;
  /** All pieces, counted up to `COUNTED`. */
  count: number;
}

/**
 * Pieces on a page.
 *
 * @internal
 */
export const COVERAGE_PAGE = 50;
/** The number up to which all pieces are counted. */
const COUNTED = 10_000;

/**
 * Loads a page of the coverage: pieces with where they were used.
 *
 * @param after what the page before gave as `next`; anything else begins at the start
 */
export async function loadCoverage(
  db: Queryable,
  brandId: string,
  { order, by, after }: { order: CoverageOrder; by: CoverageBy; after: string | null },
): Promise<Coverage> {
  const [found, count] = await Promise.all([
    listCovered(db, brandId, order, after === null ? null : readPlace(after), COVERAGE_PAGE + 1),
    countCovered(db, brandId, COUNTED),
  ]);
  const pieces = found.slice(0, COVERAGE_PAGE);
  const ids = pieces.map(({ id }) => id);
  const [uses, work] = await Promise.all([listUses(db, ids), countWorkOfPieces(db, ids)]);
  const cells = cellsOf(uses, by);
  const last = pieces.at(-1);
  return {
    rows: pieces.map((piece) => ({
      ...piece,
      cells: Object.fromEntries(cells.get(piece.id) ?? []),
      progress: progressOf(work.get(piece.id) ?? noWork()),
    })),
    next: found.length > pieces.length && last ? placeText(last) : null,
    count,
  };
}

const placeText = ({ id, madeAt, live, engagement }: CoveragePlace): string => [madeAt, id, live, engagement].join('~');

const PLACE = /^(\d{4}-\d\d-\d\dT[\d:.]+Z)~([0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12})~(\d{1,9})~(\d{1,15})$/;

function readPlace(text: string): CoveragePlace | null {
  const read = PLACE.exec(text);
  if (!read || Number.isNaN(Date.parse(read[1]!))) return null;
  return { madeAt: read[1]!, id: read[2]!, live: Number(read[3]), engagement: Number(read[4]) };
}
