import type { Queryable } from './db';

/**
 * How far the database has got: a number that grows with every transaction that writes, also across restarts. Read before
 * other queries, it says what they hold at least; read after a commit, what a view must reach to hold what was committed.
 */
export async function readAsOf(db: Queryable): Promise<number> {
  const [row] = await db.rows<{ next: string }>('select pg_snapshot_xmax(pg_current_snapshot())::text as next');
  return Number(row!.next);
}
