import { LEASE_MS, type DeliveryMode, type DeliveryState } from '@/core/delivery/delivery';
import type { Parcel } from '@/core/delivery/network';
import { addMs, type Instant } from '@/core/time/plan';
import type { Queryable } from './db';

/** How a scheduled post gets out. */
export interface Delivery {
  id: string;
  brandId: string;
  postId: string;
  mode: DeliveryMode;
  state: DeliveryState;
  idempotencyKey: string;
  /** What leaves, as it was when scheduled. */
  parcel: Parcel;
  dueAt: Instant;
  nextTryAt: Instant;
  attempts: number;
  unsure: boolean;
  words: string;
  createdAt: Instant;
}

const COLUMNS = `d.id, d.brand_id as "brandId", d.post_id as "postId", d.mode, d.state,
  d.idempotency_key as "idempotencyKey", d.parcel, d.due_at as "dueAt", d.next_try_at as "nextTryAt", d.attempts,
  d.unsure, d.words, d.created_at as "createdAt"`;

/** The delivery of a post that is not withdrawn, if there is one. */
export async function maybeDeliveryOfPost(db: Queryable, postId: string): Promise<Delivery | undefined> {
  return (
    await db.rows<Delivery>(`select ${COLUMNS} from deliveries d where d.post_id = $1 and d.state <> 'withdrawn'`, [
      postId,
    ])
  )[0];
}

/** Adds deliveries. */
export async function insertDeliveries(tx: Queryable, deliveries: readonly Delivery[]): Promise<void> {
  await tx.run(
    `insert into deliveries (id, brand_id, post_id, mode, state, idempotency_key, parcel, due_at, next_try_at, attempts,
       unsure, words, created_at)
     select x.id, x."brandId", x."postId", x.mode, x.state, x."idempotencyKey", x.parcel, x."dueAt", x."nextTryAt",
       x.attempts, x.unsure, x.words, x."createdAt"
     from jsonb_to_recordset($1::jsonb) as x (id uuid, "brandId" uuid, "postId" uuid, mode text, state text,
       "idempotencyKey" text, parcel jsonb, "dueAt" timestamptz, "nextTryAt" timestamptz, attempts int, unsure boolean,
       words text, "createdAt" timestamptz)`,
    [JSON.stringify(deliveries)],
  );
}

/** Withdraws a delivery that is not under way. @returns whether it was withdrawn. */
export async function withdrawDelivery(tx: Queryable, id: string): Promise<boolean> {
  const changed = await tx.run(
    `update deliveries set state = 'withdrawn'
     where id = $1 and (state in ('failed', 'held') or (state = 'waiting' and not unsure))`,
    [id],
  );
  return changed === 1;
}

/**
 * Gives a waiting, held or failed delivery another instant and makes it wait for that. It keeps its key, so that a try
 * whose outcome was never learnt cannot become a second post.
 *
 * @returns whether it could be
 */
export async function retimeDelivery(tx: Queryable, id: string, dueAt: Instant): Promise<boolean> {
  const changed = await tx.run(
    `update deliveries set due_at = $2, next_try_at = $2, state = 'waiting', unsure = false
     where id = $1 and (state in ('failed', 'held') or (state = 'waiting' and not unsure))`,
    [id, dueAt],
  );
  return changed === 1;
}

/** Makes a failed or held delivery, or one that waits for its next try, due at once. @returns whether it was one. */
export async function makeDueNow(tx: Queryable, id: string, now: Instant): Promise<boolean> {
  const changed = await tx.run(
    `update deliveries set state = 'waiting', next_try_at = $2,
       attempts = case when state = 'failed' then 0 else attempts end
     where id = $1 and mode = 'automatic' and state in ('failed', 'held', 'waiting')`,
    [id, now],
  );
  return changed === 1;
}

/** A delivery of a by-hand post, or one that a person says is out: its state is set to sent. @returns whether it was open. */
export async function closeDelivery(tx: Queryable, id: string): Promise<boolean> {
  const changed = await tx.run(
    `update deliveries set state = 'sent', unsure = false where id = $1 and state in ('waiting', 'held', 'failed')`,
    [id],
  );
  return changed === 1;
}

/**
 * Claims due deliveries for one worker: those that wait and are due, and those whose claim ran out, which means that a
 * try broke off and nobody knows its outcome. Each is leased for 90 seconds. Several workers never get the same.
 */
export function claimDue(tx: Queryable, now: Instant, limit: number): Promise<Delivery[]> {
  return tx.rows<Delivery>(
    `with due as (
       select id, state from deliveries
       where mode = 'automatic' and ((state = 'waiting' and next_try_at <= $1) or (state = 'sending' and lease_until <= $1))
       order by next_try_at, id limit $3 for update skip locked
     )
     update deliveries d set state = 'sending', lease_until = $2, unsure = d.unsure or due.state = 'sending'
     from due where d.id = due.id
     returning ${COLUMNS}`,
    [now, addMs(now, LEASE_MS), limit],
  );
}

/** Ends all claims at once. Only for a database that no other process can have open, when it is opened. */
export async function endAllLeases(tx: Queryable, now: Instant): Promise<number> {
  return tx.run(`update deliveries set lease_until = $1 where state = 'sending'`, [now]);
}

/** Puts claimed deliveries on hold for a person to decide. */
export async function holdDeliveries(tx: Queryable, ids: readonly string[]): Promise<void> {
  await tx.run(`update deliveries set state = 'held', lease_until = null where id = any($1::uuid[])`, [ids]);
}

/** Writes that a try begins, before the network is called. @returns the tries' numbers by delivery. */
export async function beginAttempts(
  tx: Queryable,
  attempts: readonly { id: string; deliveryId: string }[],
  now: Instant,
): Promise<Map<string, number>> {
  const rows = await tx.rows<{ deliveryId: string; number: number }>(
    `insert into delivery_attempts (id, delivery_id, number, started_at)
     select x.id, x."deliveryId",
       1 + coalesce((select max(a.number) from delivery_attempts a where a.delivery_id = x."deliveryId"), 0), $2
     from jsonb_to_recordset($1::jsonb) as x (id uuid, "deliveryId" uuid)
     returning delivery_id as "deliveryId", number`,
    [JSON.stringify(attempts), now],
  );
  await tx.run('update deliveries set attempts = attempts + 1 where id = any($1::uuid[])', [
    rows.map((row) => row.deliveryId),
  ]);
  return new Map(rows.map((row) => [row.deliveryId, row.number]));
}

/** Writes how a try ended. */
export async function endAttempt(
  tx: Queryable,
  deliveryId: string,
  number: number,
  end: { at: Instant; outcome: string; words: string },
): Promise<void> {
  await tx.run(
    'update delivery_attempts set ended_at = $3, outcome = $4, words = $5 where delivery_id = $1 and number = $2',
    [deliveryId, number, end.at, end.outcome, end.words],
  );
}

/** Writes where a claimed delivery stands after its try. @returns whether it was still claimed. */
export async function settleDelivery(
  tx: Queryable,
  id: string,
  after: { state: DeliveryState; unsure: boolean; nextTryAt: Instant | null; words: string | null },
): Promise<boolean> {
  const changed = await tx.run(
    `update deliveries set state = $2, unsure = $3, next_try_at = coalesce($4, next_try_at), words = coalesce($5, ''),
       lease_until = null
     where id = $1 and state = 'sending'`,
    [id, after.state, after.unsure, after.nextTryAt, after.words],
  );
  return changed === 1;
}

/** The next instant at which a delivery is due, if any is. */
export async function maybeNextDue(db: Queryable): Promise<Instant | undefined> {
  const rows = await db.rows<{ at: Instant }>(
    `select next_try_at as at from deliveries where state = 'waiting' and mode = 'automatic' order by next_try_at limit 1`,
  );
  return rows[0]?.at;
}

/** The idempotency key of the last delivery of a post whose outcome was never learnt, if there is one. */
export async function maybeUnsureKey(db: Queryable, postId: string): Promise<string | undefined> {
  const rows = await db.rows<{ key: string }>(
    `select d.idempotency_key as key from deliveries d
     where d.post_id = $1 and exists (
       select 1 from delivery_attempts a where a.delivery_id = d.id and (a.outcome is null or a.outcome = 'unknown'))
     order by d.created_at desc limit 1`,
    [postId],
  );
  return rows[0]?.key;
}
