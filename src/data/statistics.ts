import type { Queryable } from './db';

/**
 * Gathers the statistics that the database plans its queries by. An embedded PostgreSQL has no process that does so by
 * itself: without them it takes every table for small, and an export of 1,200 posts was seen to take a hundred times as long.
 */
export async function gatherStatistics(db: Queryable): Promise<void> {
  await db.run('analyze');
}

/** Gives back the room of rows that are gone, and gathers statistics. Not inside a transaction. */
export async function vacuum(db: Queryable): Promise<void> {
  await db.run('vacuum (analyze)');
}
