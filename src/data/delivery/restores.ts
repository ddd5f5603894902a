import type { Sign } from '@/core/folder/restored';
import type { Instant } from '@/core/time/plan';
import type { Queryable } from '../database/db';
import { COLUMNS, type Delivery } from './deliveries';
import { doubting } from './doubts';

/** That a brand's folder was found to be older than what ran last on it. */
export interface Restore {
  id: string;
  foundAt: Instant;
  /** How far the folder reached when it was found; null where it does not say. */
  restoredTo: Instant | null;
  signs: Sign[];
  /** Posts that networks had and the folder did not know to be published. */
  takenOver: number;
}

/** The restore of a brand that nobody has released yet, if there is one. */
export async function maybeOpenRestore(db: Queryable, brandId: string): Promise<Restore | undefined> {
  const rows = await db.rows<Restore>(
    `select id, found_at as "foundAt", restored_to as "restoredTo", signs, taken_over as "takenOver"
     from restores where brand_id = $1 and released_at is null`,
    [brandId],
  );
  return rows[0];
}

/** Whether a brand has a restore that nobody has released yet. */
export const existsOpenRestore = async (db: Queryable, brandId: string): Promise<boolean> =>
  (await maybeOpenRestore(db, brandId)) !== undefined;

/** Notes that a brand's folder was restored; signs that are seen later are added to it. */
export async function noteRestore(
  tx: Queryable,
  restore: { id: string; brandId: string; foundAt: Instant; restoredTo: Instant | null; signs: readonly Sign[] },
): Promise<void> {
  const { id, brandId, foundAt, restoredTo, signs } = restore;
  await tx.run(
    `insert into restores (id, brand_id, found_at, restored_to, signs) values ($1, $2, $3, $4, $5::text[])
     on conflict (brand_id) where released_at is null
     do update set signs = (select array_agg(distinct sign) from unnest(restores.signs || excluded.signs) as s (sign)),
       restored_to = least(restores.restored_to, excluded.restored_to)`,
    [id, brandId, foundAt, restoredTo, signs],
  );
}

/** Counts one more post that was taken over from a network. */
export async function countTakenOver(tx: Queryable, brandId: string): Promise<void> {
  await tx.run('update restores set taken_over = taken_over + 1 where brand_id = $1 and released_at is null', [
    brandId,
  ]);
}

/** Notes that somebody saw what waits and released it. @returns whether there was something to release */
export async function closeRestore(
  tx: Queryable,
  brandId: string,
  by: { personId: string; at: Instant },
): Promise<boolean> {
  const closed = await tx.run(
    'update restores set released_at = $2, released_by = $3 where brand_id = $1 and released_at is null',
    [brandId, by.at, by.personId],
  );
  return closed === 1;
}

/** An account that has not told yet what it holds. */
interface AccountToAsk {
  channelId: string;
  since: Instant;
}

/** Lets all channels that are sent to by themselves be asked what they hold, before anything leaves on them. */
export async function askAllAccounts(tx: Queryable, channelIds: readonly string[], since: Instant): Promise<void> {
  await tx.run(
    `insert into accounts_to_ask (channel_id, since) select id, $2 from unnest($1::uuid[]) as c (id)
     on conflict (channel_id) do update set since = least(accounts_to_ask.since, excluded.since)`,
    [channelIds, since],
  );
}

/** Accounts that have not told yet what they hold. */
export function listAccountsToAsk(db: Queryable): Promise<AccountToAsk[]> {
  return db.rows<AccountToAsk>('select channel_id as "channelId", since from accounts_to_ask order by channel_id');
}

/** Notes that an account told what it holds, or cannot. */
export async function noteAccountTold(tx: Queryable, channelId: string): Promise<void> {
  await tx.run('delete from accounts_to_ask where channel_id = $1', [channelId]);
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
