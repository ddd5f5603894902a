import type { TakenDown } from '@/core/delivery/takenDown';
import type { Instant } from '@/core/time/plan';
import type { Queryable } from '../database/db';

/** Writes down that a post is taken down, or is to be. */
export async function insertTakeDown(
  tx: Queryable,
  takeDown: TakenDown & { postId: string; brandId: string; askedBy: string },
): Promise<void> {
  const { postId, brandId, reason, way, askedBy, askedAt, doneAt } = takeDown;
  await tx.run(
    `insert into take_downs (post_id, brand_id, reason, way, asked_by, asked_at, done_at)
     values ($1, $2, $3, $4, $5, $6, $7)`,
    [postId, brandId, reason, way, askedBy, askedAt, doneAt],
  );
}

/** Writes down that a person took a post down. @returns whether that was still to be done */
export async function finishTakeDown(tx: Queryable, postId: string, now: Instant): Promise<boolean> {
  const done = await tx.run('update take_downs set done_at = $2 where post_id = $1 and done_at is null', [postId, now]);
  return done === 1;
}

/** Which of these posts were taken down, or are to be. */
export async function listTakeDowns(db: Queryable, postIds: readonly string[]): Promise<Map<string, TakenDown>> {
  const rows = await db.rows<TakenDown & { postId: string }>(
    `select post_id as "postId", reason, way, asked_at as "askedAt", done_at as "doneAt" from take_downs
     where post_id = any($1::uuid[])`,
    [postIds],
  );
  return new Map(rows.map(({ postId, ...takeDown }) => [postId, takeDown]));
}
