import type { Queryable } from './db';

/**
 * How far a view reaches: a number that grows with every transaction that writes, also across restarts. Read before the
 * view's own queries, it says what they hold at least: all that was written before the oldest transaction still running, so
 * that a view never passes one it lacks.
 */
export async function readAsOf(db: Queryable): Promise<number> {
  const [row] = await db.rows<{ oldest: string }>('select pg_snapshot_xmin(pg_current_snapshot())::text as oldest');
  return Number(row!.oldest);
}

/** What a view must reach to hold what was committed just now: the same number, past every transaction there has been. */
export async function readReached(db: Queryable): Promise<number> {
  const [row] = await db.rows<{ next: string }>('select pg_snapshot_xmax(pg_current_snapshot())::text as next');
  return Number(row!.next);
}
