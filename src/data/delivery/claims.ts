import type { DeliveryState } from '@/core/delivery/delivery';
import type { Instant } from '@/core/time/plan';
import type { Queryable } from '../database/db';
import { beatOnce, heldByNobodyElse, stoppedOf, type Claimant } from '../holders/holders';
import { isBrandHeld } from './brandHolds';
import { COLUMNS, type Delivery } from './deliveries';
import type { Doubt } from './doubts';

/**
 * Claims due deliveries for one process: those that wait and are due, and those that a process held which is gone or has
 * stopped, or that this one let go of, which means that a try broke off and nobody knows its outcome. Several processes never
 * get the same, and none gets what it holds, nor anything of a brand that is on hold.
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
             and not ${isBrandHeld('d')}
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
