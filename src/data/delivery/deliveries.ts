import type { DeliveryMode, DeliveryState } from '@/core/delivery/delivery';
import type { Parcel } from '@/core/delivery/network';
import type { Instant } from '@/core/time/plan';
import type { Queryable } from '../database/db';
import { instantText, namedColumns, type Columns } from '../database/manyRows';
import { beatOnce, heldByNobodyElse, stoppedOf, type Claimant } from '../holders/holders';

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

/** The withdrawn deliveries of a post that may be out all the same. */
export function listMaybeOut(db: Queryable, postId: string): Promise<Delivery[]> {
  return db.rows<Delivery>(
    `select ${COLUMNS} from deliveries d
     where d.post_id = $1 and d.state = 'withdrawn' and d.unsure_since is not null order by d.created_at`,
    [postId],
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
     where state = 'waiting' and mode = 'byHand' and next_try_at <= $2 and brand_id = $1 and not awaits_release`,
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

/** A doubt about a delivery, as whoever asked about it met it. */
export type Doubt = Pick<Delivery, 'id' | 'doubts'>;

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

/**
 * A statement that makes deliveries unsure anew, whatever was known of them; those that were sent stay so. What is at rest is
 * asked about at once, what waits is before it is sent. `$1` is now.
 *
 * @param which SQL on `d` that says which
 */
const doubting = (which: string): string =>
  `update deliveries d set unsure_since = $1, doubts = d.doubts + 1,
     ask_at = case when d.state not in ('waiting', 'sending') then coalesce(d.ask_at, $1) end,
     state = case when d.state in ('failed', 'held') then 'unknown' else d.state end
   where d.state <> 'sent' and ${which}`;

/** Writes of one delivery that it may be out after all. */
export async function doubtOne(tx: Queryable, id: string, now: Instant): Promise<void> {
  await tx.run(doubting('d.id = $2'), [now, id]);
}

/**
 * Claims due deliveries for one process: those that wait and are due, and those that a process held which is gone or has
 * stopped, or that this one let go of, which means that a try broke off and nobody knows its outcome. Several processes never
 * get the same, and none gets what it holds.
 *
 * @param room how many more may be under way at once, and how many on one channel
 * @param underWay what this process holds by now, by id, with its channel
 */
export async function claimDue(
  tx: Queryable,
  now: Instant,
  claimant: Claimant,
  room: { inAll: number; onChannel: number },
  underWay: ReadonlyMap<string, { channelId: string }> = new Map(),
): Promise<Delivery[]> {
  const onChannels: Record<string, number> = {};
  for (const { channelId } of underWay.values()) onChannels[channelId] = (onChannels[channelId] ?? 0) + 1;
  const isFree = `((d.state = 'waiting' and d.next_try_at <= $1)
    or (d.state = 'sending' and d.id <> all($6::uuid[])
      and (d.holder_id = $2 or ${heldByNobodyElse('d.holder_id', '$7', '$8')})))`;
  const claimed = await tx.rows<Delivery>(
    `with mine as (
       select d.id, d.state from deliveries d
       where d.id in (
         select id from (
           select d.id, d.next_try_at, row_number() over (partition by d.channel_id order by d.next_try_at, d.id)
             + coalesce(($5::jsonb->>d.channel_id::text)::int, 0) as place
           from deliveries d
           where d.mode = 'automatic' and d.state in ('waiting', 'sending') and ${isFree} and not d.awaits_release
             and not exists (select 1 from accounts_to_ask a where a.channel_id = d.channel_id)
         ) due where place <= $4 order by next_try_at, id limit $3)
         and ${isFree} and not d.awaits_release
       order by d.next_try_at, d.id for update skip locked
     )
     update deliveries d set state = 'sending', holder_id = $2,
       unsure_since = case when mine.state = 'sending' then coalesce(d.unsure_since, $1) else d.unsure_since end,
       doubts = d.doubts + (mine.state = 'sending')::int
     from mine where d.id = mine.id
     returning ${COLUMNS}`,
    [
      ...[now, claimant.id, room.inAll, room.onChannel, JSON.stringify(onChannels), [...underWay.keys()]],
      ...stoppedOf(claimant),
    ],
  );
  if (claimed.length > 0) await beatOnce(tx, claimant.id);
  return claimed;
}

/** Puts claimed deliveries on hold for a person to decide. @param why by id: what is wrong with it; empty where it is only late */
export async function holdDeliveries(tx: Queryable, held: readonly { id: string; why: string }[]): Promise<void> {
  if (held.length === 0) return;
  await tx.run(
    `update deliveries d set state = 'held', holder_id = null, words = x.why
     from jsonb_to_recordset($1::jsonb) as x (id uuid, why text) where d.id = x.id and d.id = any($2::uuid[])`,
    [JSON.stringify(held), held.map(({ id }) => id)],
  );
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

/**
 * Writes where a claimed delivery stands after its try. A doubt that came up since it was claimed stays.
 *
 * @returns whether this process still held it; otherwise nothing was written
 */
export async function settleDelivery(
  tx: Queryable,
  { id, doubts }: Doubt,
  holderId: string,
  after: {
    state: DeliveryState;
    unsureSince: Instant | null;
    /** Whether this very try had no answer. */
    isDoubted: boolean;
    nextTryAt: Instant | null;
    askAt: Instant | null;
    words: string | null;
  },
): Promise<boolean> {
  const changed = await tx.run(
    `update deliveries d set
       state = case when d.doubts <> $7 and $2 in ('failed', 'held') then 'unknown' else $2 end,
       unsure_since = case when d.doubts <> $7 then coalesce($3::timestamptz, d.unsure_since) else $3::timestamptz end,
       doubts = d.doubts + $9::boolean::int,
       next_try_at = coalesce($4, d.next_try_at), asks = 0, words = coalesce($6, ''), holder_id = null,
       ask_at = case when d.doubts <> $7 and $2 in ('failed', 'held') then coalesce($5::timestamptz, d.unsure_since) else $5 end
     where d.id = $1 and d.state = 'sending' and d.holder_id = $8`,
    [id, after.state, after.unsureSince, after.nextTryAt, after.askAt, after.words, doubts, holderId, after.isDoubted],
  );
  return changed === 1;
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
 * After its folder was restored nobody knows what became of a brand's deliveries since: every automatic one that was not sent is
 * unsure and asked about, and waits until somebody releases it; so does what a person may have posted by hand by now.
 */
export async function keepBack(tx: Queryable, brandId: string, now: Instant): Promise<void> {
  const ofBrand = `d.brand_id = $2 and d.mode = 'automatic' and d.state <> 'withdrawn' and not d.awaits_release`;
  await tx.run(doubting(ofBrand), [now, brandId]);
  await tx.run(
    `update deliveries d set awaits_release = true, holder_id = null, attempts = 0,
       state = case when d.state = 'sending' then 'waiting' else d.state end, ask_at = coalesce(d.ask_at, $1)
     where ${ofBrand} and d.state <> 'sent'`,
    [now, brandId],
  );
  await tx.run(
    `update deliveries d set awaits_release = true
     where d.brand_id = $2 and d.mode = 'byHand' and d.state = 'waiting' and d.due_at <= $1`,
    [now, brandId],
  );
}

/** A delivery `d` that waits to be released, and would be sent or posted then. */
const AWAITING = `d.awaits_release and d.state not in ('sent', 'withdrawn')`;

/** Deliveries of a brand that wait to be released, the next due first. */
export function listAwaitingRelease(db: Queryable, brandId: string): Promise<Delivery[]> {
  return db.rows<Delivery>(
    `select ${COLUMNS} from deliveries d where ${AWAITING} and d.brand_id = $1 order by d.due_at, d.id`,
    [brandId],
  );
}

/** Lets deliveries of a brand go on, all or those of some posts. @returns the ids of those that were released */
export async function releaseDeliveries(
  tx: Queryable,
  brandId: string,
  postIds: readonly string[] | null,
): Promise<string[]> {
  const rows = await tx.rows<{ id: string }>(
    `update deliveries d set awaits_release = false
     where ${AWAITING} and d.brand_id = $1 and ($2::uuid[] is null or d.post_id = any($2::uuid[])) returning d.id`,
    [brandId, postIds],
  );
  return rows.map(({ id }) => id);
}

/** The delivery of a brand under a key, whatever became of it. */
export async function maybeDeliveryByKey(db: Queryable, brandId: string, key: string): Promise<Delivery | undefined> {
  const rows = await db.rows<Delivery>(
    `select ${COLUMNS} from deliveries d where d.brand_id = $1 and d.idempotency_key = $2`,
    [brandId, key],
  );
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

/** All deliveries of a post, the oldest first. */
export function listDeliveriesOfPost(db: Queryable, postId: string): Promise<Delivery[]> {
  return db.rows<Delivery>(`select ${COLUMNS} from deliveries d where d.post_id = $1 order by d.created_at, d.id`, [
    postId,
  ]);
}
