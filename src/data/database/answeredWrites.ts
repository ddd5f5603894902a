import type { Instant } from '@/core/time/plan';
import type { Queryable } from './db';

/** A write as its sender knows it. */
interface WriteKey {
  actorId: string;
  key: string;
  /** Which of the writes of one request it is, from 0. */
  part: number;
}

/** What the same write was answered before, if it was. */
export async function maybeAnswered(
  db: Queryable,
  { actorId, key, part }: WriteKey,
): Promise<{ value: unknown } | undefined> {
  return (
    await db.rows<{ value: unknown }>(
      'select value from answered_writes where actor_id = $1 and key = $2 and part = $3',
      [actorId, key, part],
    )
  )[0];
}

/** Notes what a write came to, in its transaction. @returns whether it is the first of its key */
export async function noteAnswered(
  tx: Queryable,
  { actorId, key, part }: WriteKey,
  value: unknown,
  at: Instant,
): Promise<boolean> {
  const added = await tx.run(
    `insert into answered_writes (actor_id, key, part, value, at) values ($1, $2, $3, $4::jsonb, $5)
     on conflict do nothing`,
    [actorId, key, part, JSON.stringify(value ?? null), at],
  );
  return added === 1;
}

/** Forgets what was answered before an instant: nobody sends it again after so long. */
export function forgetAnswered(db: Queryable, before: Instant): Promise<number> {
  return db.run('delete from answered_writes where at < $1', [before]);
}
