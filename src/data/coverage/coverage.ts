import type { CoverageOrder, Use } from '@/core/coverage/coverage';
import type { PieceKind } from '@/core/pieces/kinds';
import type { Instant } from '@/core/time/plan';
import type { Queryable } from '../database/db';

/** A piece as coverage lists it. */
export interface CoveredPiece {
  id: string;
  title: string;
  note: string;
  kind: PieceKind;
  madeAt: Instant;
  hasText: boolean;
  /** Live posts. */
  live: number;
  /** Likes, comments, shares and saves of its published posts together. */
  engagement: number;
}

/** The place of a piece in an order, for the page that follows it. */
export type CoveragePlace = Pick<CoveredPiece, 'id' | 'madeAt' | 'live' | 'engagement'>;

const BEFORE = '(u.made_at < $3 or (u.made_at = $3 and u.piece_id > $4))';

/**
 * What each order goes by, what lies behind a place in it, and the numbers of the place that this speaks of. The first condition is
 * there for the index: a page begins where the one before ended.
 */
const ORDERS: Record<CoverageOrder, { by: string; after: string; number?: 'live' | 'engagement' }> = {
  newest: { by: 'u.made_at desc, u.piece_id', after: `u.made_at <= $3 and ${BEFORE}` },
  oldest: {
    by: 'u.made_at, u.piece_id desc',
    after: 'u.made_at >= $3 and (u.made_at > $3 or (u.made_at = $3 and u.piece_id < $4))',
  },
  leastUsed: {
    by: 'u.live, u.made_at desc, u.piece_id',
    after: `u.live >= $5 and (u.live > $5 or ${BEFORE})`,
    number: 'live',
  },
  didBest: {
    by: 'u.engagement desc, u.made_at desc, u.piece_id',
    after: `u.engagement <= $5 and (u.engagement < $5 or ${BEFORE})`,
    number: 'engagement',
  },
};

/** Pieces of a brand in an order, at most `limit`, from behind a place on. */
export function listCovered(
  db: Queryable,
  brandId: string,
  order: CoverageOrder,
  after: CoveragePlace | null,
  limit: number,
): Promise<CoveredPiece[]> {
  const { by, after: behind, number } = ORDERS[order];
  const place = after === null ? [] : [after.madeAt, after.id, ...(number ? [after[number]] : [])];
  return db.rows<CoveredPiece>(
    `with shown as (
       select u.* from piece_uses u where u.brand_id = $1 and u.is_shown ${after === null ? '' : `and ${behind}`}
       order by ${by} limit $2)
     select p.id, p.title, p.note, p.kind, u.made_at as "madeAt", p.source_text ~ '\\S' as "hasText", u.live,
       u.engagement::float8 as engagement
     from shown u join pieces p on p.id = u.piece_id order by ${by}`,
    [brandId, limit, ...place],
  );
}

/** Where and how often pieces are used by live posts. */
export function listUses(db: Queryable, pieceIds: readonly string[]): Promise<Use[]> {
  return db.rows<Use>(
    `select p.piece_id as "pieceId", p.channel_id as "channelId", p.format, p.stage = 'published' as "isPublished",
       count(*)::int as count
     from unnest($1::uuid[]) as x (id) join posts p on p.piece_id = x.id
     where p.deleted_at is null and p.stage <> 'setAside' group by 1, 2, 3, 4`,
    [pieceIds],
  );
}

/** How many pieces a brand has that are no ideas, counted up to a number. */
export async function countCovered(db: Queryable, brandId: string, most: number): Promise<number> {
  const [row] = await db.rows<{ count: number }>(
    'select count(*)::int as count from (select 1 from piece_uses where brand_id = $1 and is_shown limit $2) x',
    [brandId, most],
  );
  return row!.count;
}
