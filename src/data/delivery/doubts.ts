import type { Instant } from '@/core/time/plan';
import type { Queryable } from '../database/db';
import { COLUMNS, insertDeliveries, type Delivery } from './deliveries';

/** A doubt about a delivery, as whoever asked about it met it. */
export type Doubt = Pick<Delivery, 'id' | 'doubts'>;

/**
 * A statement that makes deliveries unsure anew, whatever was known of them; those that were sent stay so. What is at rest is
 * asked about at once, what waits is before it is sent. `$1` is now.
 *
 * @param which SQL on `d` that says which
 */
export const doubting = (which: string): string =>
  `update deliveries d set unsure_since = $1, doubts = d.doubts + 1,
     ask_at = case when d.state not in ('waiting', 'sending') then coalesce(d.ask_at, $1) end,
     state = case when d.state in ('failed', 'held') then 'unknown' else d.state end
   where d.state <> 'sent' and ${which}`;

/** Writes of one delivery that it may be out after all. */
export async function doubtOne(tx: Queryable, id: string, now: Instant): Promise<void> {
  await tx.run(doubting('d.id = $2'), [now, id]);
}

/**
 * Writes that deliveries are known not to be out, as far as they were not made unsure anew since it was asked; one whose tries
 * are used up has failed by that.
 */
export async function noteNotOut(tx: Queryable, doubts: readonly Doubt[]): Promise<void> {
  if (doubts.length === 0) return;
  await tx.run(
    `update deliveries d set unsure_since = null, ask_at = null,
       state = case when d.state = 'unknown' then 'failed' else d.state end
     from unnest($1::uuid[], $2::int[]) as x (id, doubts) where d.id = x.id and d.doubts = x.doubts`,
    [doubts.map(({ id }) => id), doubts.map((doubt) => doubt.doubts)],
  );
}

/** The withdrawn deliveries of a post that may be out all the same. */
export function listMaybeOut(db: Queryable, postId: string): Promise<Delivery[]> {
  return db.rows<Delivery>(
    `select ${COLUMNS} from deliveries d
     where d.post_id = $1 and d.state = 'withdrawn' and d.unsure_since is not null order by d.created_at`,
    [postId],
  );
}

/** Deliveries whose networks are to be asked by now whether they are out, those that waited longest first. */
export function listToAsk(db: Queryable, now: Instant, limit: number): Promise<Delivery[]> {
  return db.rows<Delivery>(
    `select ${COLUMNS} from deliveries d where d.ask_at <= $1 and d.state <> 'sending' order by d.ask_at, d.id limit $2`,
    [now, limit],
  );
}

/** Writes that the network was asked and did not tell, and when it is asked next. */
export async function noteAsked(tx: Queryable, id: string, nextAt: Instant | null): Promise<void> {
  await tx.run('update deliveries set asks = asks + 1, ask_at = $2 where id = $1 and unsure_since is not null', [
    id,
    nextAt,
  ]);
}

/** Lets deliveries be asked about at once. */
export async function askNow(tx: Queryable, ids: readonly string[], now: Instant): Promise<void> {
  await tx.run('update deliveries set ask_at = $2 where id = any($1::uuid[]) and unsure_since is not null', [ids, now]);
}

/**
 * Writes that a network took a delivery, whatever became of it since. A withdrawn one becomes unsure anew instead, until its post
 * is written to be out by it, so that what is to be sent of the post meets it.
 */
export async function noteAccepted(tx: Queryable, id: string, tookAt: Instant, now: Instant): Promise<void> {
  const isCurrent = await tx.run(
    `update deliveries set state = 'sent', unsure_since = null, ask_at = null, holder_id = null, words = '', took_at = $2
     where id = $1 and state <> 'withdrawn'`,
    [id, tookAt],
  );
  if (isCurrent > 0) return;
  await doubtOne(tx, id, now);
  await tx.run('update deliveries set took_at = $2 where id = $1', [id, tookAt]);
}

/** Writes that an earlier delivery of a post is out; where another one counts by then, beside that one. */
export async function noteOut(tx: Queryable, id: string, tookAt: Instant): Promise<void> {
  await tx.run(
    `update deliveries d set unsure_since = null, ask_at = null, holder_id = null, words = '', took_at = $2,
       state = case when exists (select 1 from deliveries o where o.post_id = d.post_id and o.id <> d.id
         and o.state <> 'withdrawn') then d.state else 'sent' end
     where d.id = $1`,
    [id, tookAt],
  );
}

/** Adds what a network took of a post under a key that was not known: what the post is out by, or beside what counts. */
export async function insertTaken(
  tx: Queryable,
  taken: Pick<Delivery, 'id' | 'brandId' | 'postId' | 'channelId' | 'idempotencyKey' | 'parcel' | 'createdAt'> & {
    tookAt: Instant;
  },
): Promise<void> {
  await insertDeliveries(tx, [
    {
      ...taken,
      ...{
        mode: 'automatic',
        state: 'withdrawn',
        dueAt: taken.tookAt,
        nextTryAt: taken.tookAt,
        attempts: 1,
        words: '',
      },
    },
  ]);
  await noteOut(tx, taken.id, taken.tookAt);
}
