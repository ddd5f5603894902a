import type { DeliveryMode, DeliveryState } from '@/core/delivery/delivery';
import type { Parcel } from '@/core/delivery/network';
import type { Instant } from '@/core/time/plan';
import type { Queryable } from '../database/db';
import { instantText, namedColumns, type Columns } from '../database/manyRows';
import { isBrandHeld } from './brandHolds';

/** How a scheduled post gets out. */
export interface Delivery {
  id: string;
  brandId: string;
  postId: string;
  /** The channel it was copied for. */
  channelId: string;
  mode: DeliveryMode;
  state: DeliveryState;
  idempotencyKey: string;
  /** What leaves, as it was when scheduled. */
  parcel: Parcel;
  dueAt: Instant;
  nextTryAt: Instant;
  /** Lateness is counted from here: the due instant, or when a person said that it may go all the same. */
  lateFrom: Instant;
  attempts: number;
  /** Since when nobody knows whether the network took it; null where that is known. */
  unsureSince: Instant | null;
  /** Whether nobody knows whether the network took it. */
  unsure: boolean;
  /** When its network is asked again whether it is out; null while it is not asked by itself. */
  askAt: Instant | null;
  /** How often it was asked by itself. */
  asks: number;
  /** How often it became unsure; an answer settles only the doubt that it was asked in. */
  doubts: number;
  words: string;
  createdAt: Instant;
  /** Whether it goes to a network that is there for practice only. */
  isPractice: boolean;
  /** It waits, since its folder was restored, until somebody releases it. */
  awaitsRelease: boolean;
  /** When its network took it; null where it did not, or nobody knows. */
  tookAt: Instant | null;
}

/** Where each field of a delivery `d` stands. */
const DELIVERY: Columns<Delivery> = {
  id: 'd.id',
  brandId: 'd.brand_id',
  postId: 'd.post_id',
  channelId: 'd.channel_id',
  mode: 'd.mode',
  state: 'd.state',
  idempotencyKey: 'd.idempotency_key',
  parcel: 'd.parcel',
  dueAt: 'd.due_at',
  nextTryAt: 'd.next_try_at',
  lateFrom: 'd.late_from',
  attempts: 'd.attempts',
  unsureSince: 'd.unsure_since',
  unsure: 'd.unsure_since is not null',
  askAt: 'd.ask_at',
  asks: 'd.asks',
  doubts: 'd.doubts',
  words: 'd.words',
  createdAt: 'd.created_at',
  isPractice: 'd.is_practice',
  awaitsRelease: 'd.awaits_release',
  tookAt: 'd.took_at',
};

/** The columns of a delivery `d`. */
export const COLUMNS = namedColumns(DELIVERY);

/** The columns of a delivery `d` as `manyRows` asks for them. */
export const JSON_COLUMNS: Columns<Delivery> = {
  ...DELIVERY,
  dueAt: instantText(DELIVERY.dueAt),
  nextTryAt: instantText(DELIVERY.nextTryAt),
  lateFrom: instantText(DELIVERY.lateFrom),
  unsureSince: instantText(DELIVERY.unsureSince),
  askAt: instantText(DELIVERY.askAt),
  tookAt: instantText(DELIVERY.tookAt),
  createdAt: instantText(DELIVERY.createdAt),
};

/** The delivery of a post that is not withdrawn, if there is one. */
export async function maybeDeliveryOfPost(db: Queryable, postId: string): Promise<Delivery | undefined> {
  return (
    await db.rows<Delivery>(`select ${COLUMNS} from deliveries d where d.post_id = $1 and d.state <> 'withdrawn'`, [
      postId,
    ])
  )[0];
}

/** The deliveries of posts that are not withdrawn, and those that are and may be out all the same, the oldest first. */
export function listDeliveriesThatMatter(db: Queryable, postIds: readonly string[]): Promise<Delivery[]> {
  return db.rows<Delivery>(
    `select ${COLUMNS} from deliveries d where d.post_id = any($1::uuid[])
       and (d.state <> 'withdrawn' or d.unsure_since is not null) order by d.created_at`,
    [postIds],
  );
}

/** A delivery as it is made: what only comes with tries is left out. */
export type NewDelivery = Omit<
  Delivery,
  'isPractice' | 'awaitsRelease' | 'tookAt' | 'lateFrom' | 'unsureSince' | 'unsure' | 'askAt' | 'asks' | 'doubts'
>;

/** How many posts of a brand a person has to post by hand by now. */
export async function countDueByHand(db: Queryable, brandId: string, now: Instant): Promise<number> {
  const [row] = await db.rows<{ count: number }>(
    `select count(*)::int as count from deliveries
     where state = 'waiting' and mode = 'byHand' and next_try_at <= $2 and brand_id = $1 and not awaits_release
       and not ${isBrandHeld('deliveries')}`,
    [brandId, now],
  );
  return row!.count;
}

/** Adds deliveries. */
export async function insertDeliveries(tx: Queryable, deliveries: readonly NewDelivery[]): Promise<void> {
  if (deliveries.length === 0) return;
  await tx.run(
    `insert into deliveries (id, brand_id, post_id, channel_id, mode, state, idempotency_key, parcel, due_at, next_try_at,
       late_from, attempts, words, created_at, is_practice)
     select x.id, x."brandId", x."postId", x."channelId", x.mode, x.state, x."idempotencyKey", x.parcel, x."dueAt",
       x."nextTryAt", x."dueAt", x.attempts, x.words, x."createdAt", x.mode = 'automatic' and b.delivers = 'practice'
     from jsonb_to_recordset($1::jsonb) as x (id uuid, "brandId" uuid, "postId" uuid, "channelId" uuid, mode text,
       state text, "idempotencyKey" text, parcel jsonb, "dueAt" timestamptz, "nextTryAt" timestamptz, attempts int,
       words text, "createdAt" timestamptz) join brands b on b.id = x."brandId"`,
    [JSON.stringify(deliveries)],
  );
}

/** Deliveries that a person may still withdraw or re-time: none that is under way, or is tried again because nobody knows. */
const AT_REST = `(d.state in ('failed', 'held', 'unknown')
  or (d.state = 'waiting' and (d.unsure_since is null or d.attempts = 0)))`;

/**
 * Withdraws deliveries that are not under way. One whose outcome is not known stays so, and is asked about from now on.
 *
 * @returns those that were withdrawn
 */
export async function withdrawDeliveries(tx: Queryable, ids: readonly string[], now: Instant): Promise<string[]> {
  if (ids.length === 0) return [];
  const rows = await tx.rows<{ id: string }>(
    `update deliveries d set state = 'withdrawn',
       ask_at = case when d.unsure_since is not null then coalesce(d.ask_at, $2) end
     where d.id = any($1::uuid[]) and ${AT_REST} returning d.id`,
    [ids, now],
  );
  return rows.map(({ id }) => id);
}

/**
 * Gives deliveries another instant, with a fresh count of tries. Only for those whose outcome is known: what may be out
 * keeps the instant it may have left at.
 *
 * @returns those that were re-timed
 */
export async function retimeDeliveries(
  tx: Queryable,
  times: readonly { id: string; dueAt: Instant }[],
): Promise<string[]> {
  if (times.length === 0) return [];
  const rows = await tx.rows<{ id: string }>(
    `update deliveries d set due_at = x."dueAt", next_try_at = x."dueAt", late_from = x."dueAt", state = 'waiting', attempts = 0,
       words = ''
     from unnest($1::uuid[], $2::timestamptz[]) as x (id, "dueAt")
     where d.id = x.id and d.unsure_since is null and ${AT_REST} returning d.id`,
    [times.map(({ id }) => id), times.map(({ dueAt }) => dueAt)],
  );
  return rows.map(({ id }) => id);
}

/** Makes a failed or held delivery due at once, however late it is by now. @returns whether it was one. */
export async function makeDueNow(tx: Queryable, id: string, now: Instant): Promise<boolean> {
  const changed = await tx.run(
    `update deliveries set state = 'waiting', next_try_at = $2, late_from = $2, attempts = 0
     where id = $1 and mode = 'automatic' and state in ('failed', 'held')`,
    [id, now],
  );
  return changed === 1;
}

/** Writes what a person says of posts that are out: their open deliveries went out, and nothing more is asked about any. */
export async function closeDeliveries(tx: Queryable, postIds: readonly string[]): Promise<void> {
  if (postIds.length === 0) return;
  await tx.run(
    `update deliveries d set unsure_since = null, ask_at = null,
       state = case when d.state = 'withdrawn' then d.state else 'sent' end
     where d.post_id = any($1::uuid[]) and (d.unsure_since is not null or ${AT_REST})`,
    [postIds],
  );
}

/** Withdraws the deliveries of posts that only a person said to be out, once that is taken back. */
export async function withdrawSaidOut(tx: Queryable, postIds: readonly string[]): Promise<void> {
  if (postIds.length === 0) return;
  await tx.run(
    `update deliveries d set state = 'withdrawn' where d.post_id = any($1::uuid[]) and d.state = 'sent' and d.took_at is null`,
    [postIds],
  );
}

/** The delivery under a key, of whatever brand, whatever became of it. */
export async function maybeDeliveryByKey(db: Queryable, key: string): Promise<Delivery | undefined> {
  const rows = await db.rows<Delivery>(`select ${COLUMNS} from deliveries d where d.idempotency_key = $1`, [key]);
  return rows[0];
}

/** The next instant at which a delivery is due, if any is. */
export async function maybeNextDue(db: Queryable): Promise<Instant | undefined> {
  const rows = await db.rows<{ at: Instant }>(
    `select next_try_at as at from deliveries where state = 'waiting' and mode = 'automatic' and not awaits_release
     order by next_try_at limit 1`,
  );
  return rows[0]?.at;
}
