import type { Notice, NoticeKind } from '@/core/notices/notice';
import type { Instant, Zone } from '@/core/time/plan';
import type { Queryable } from '../database/db';
import { instantText } from '../database/manyRows';
import { isBrandHeld } from '../delivery/brandHolds';

/** Something that nobody was told of yet. */
interface Occasion {
  brandId: string;
  postId: string;
  ownerId: string;
  kind: NoticeKind;
  /** Tells one time that it happened from the next. */
  occasion: string;
  dueAt: Instant;
}

/** SQL: what a delivery gives occasion to tell of, and which time it is. @param d the name that deliveries go by */
const kindOf = (d: string): string => `case when ${d}.mode = 'byHand' then 'dueByHand'
  when ${d}.state = 'failed' then 'notSent' when ${d}.state = 'unknown' then 'unsure' else 'held' end`;
const occasionOf = (d: string): string =>
  `case when ${d}.mode = 'byHand' then ${instantText(`${d}.due_at`)} else ${d}.id || ' ' || ${d}.attempts end`;
/** SQL: whether a delivery gives occasion to tell of it at all, but for the time. */
const isTold = (d: string): string =>
  `(${d}.mode = 'byHand' and ${d}.state = 'waiting' or ${d}.mode = 'automatic' and ${d}.state in ('failed', 'unknown', 'held'))`;

/**
 * What has to be told by now and was not: what is due by hand within the lead of its channel, what did not leave as it should, and what
 * is to be taken down by hand.
 */
export function listUntold(db: Queryable, now: Instant, limit: number): Promise<Occasion[]> {
  return db.rows<Occasion>(
    `select d.brand_id as "brandId", d.post_id as "postId", p.owner_id as "ownerId", ${kindOf('d')} as kind,
       ${occasionOf('d')} as occasion, ${instantText('d.due_at')} as "dueAt"
     from deliveries d join posts p on p.id = d.post_id join channels c on c.id = d.channel_id
     where ${isTold('d')} and not d.is_practice and not d.awaits_release and p.deleted_at is null
       and (d.mode = 'automatic' or d.next_try_at <= $1::timestamptz + make_interval(mins => c.lead_minutes)
         and not ${isBrandHeld('d')})
       and not exists (select 1 from notices n
         where n.post_id = d.post_id and n.kind = ${kindOf('d')} and n.occasion = ${occasionOf('d')})
     union all
     select t.brand_id, t.post_id, p.owner_id, 'takeDown', ${instantText('t.asked_at')}, ${instantText('t.asked_at')}
     from take_downs t join posts p on p.id = t.post_id
     where t.done_at is null and p.deleted_at is null and not exists (select 1 from notices n
       where n.post_id = t.post_id and n.kind = 'takeDown' and n.occasion = ${instantText('t.asked_at')})
     order by "dueAt" limit $2`,
    [now, limit],
  );
}

/** Adds notices that are not there yet. */
export async function insertNotices(
  tx: Queryable,
  notices: readonly (Omit<Occasion, 'ownerId'> & {
    id: string;
    personId: string;
    madeAt: Instant;
    /** Null: not by mail. */
    mailDueAt: Instant | null;
  })[],
): Promise<void> {
  if (notices.length === 0) return;
  await tx.run(
    `insert into notices (id, brand_id, person_id, post_id, kind, occasion, due_at, made_at, mail_due_at)
     select x.id, x."brandId", x."personId", x."postId", x.kind, x.occasion, x."dueAt", x."madeAt",
       x."mailDueAt"
     from jsonb_to_recordset($1::jsonb) as x (id uuid, "brandId" uuid, "personId" uuid, "postId" uuid, kind text,
       occasion text, "dueAt" timestamptz, "madeAt" timestamptz, "mailDueAt" timestamptz)
     on conflict do nothing`,
    [JSON.stringify(notices)],
  );
}

/** SQL: what a notice tells of has been dealt with since. */
const IS_SETTLED = `case when n.kind = 'takeDown'
  then not exists (select 1 from take_downs t where t.post_id = n.post_id and t.done_at is null)
  else not exists (select 1 from deliveries d where d.post_id = n.post_id and ${isTold('d')}
    and ${kindOf('d')} = n.kind and ${occasionOf('d')} = n.occasion) end`;
const OF_BRANDS_THEY_WORK_FOR =
  'exists (select 1 from brand_people bp where bp.brand_id = n.brand_id and bp.person_id = n.person_id)';

type Row = Omit<Notice, 'brand'> & { slug: string; brandName: string; zone: Zone };

const SELECT = `select n.id, n.kind, ${instantText('n.made_at')} as "madeAt", ${instantText('n.read_at')} as "readAt",
    n.post_id as "postId", ${instantText('n.due_at')} as "dueAt", p.title, c.name as channel,
    b.slug, b.name as "brandName", b.zone, ${IS_SETTLED} as "isSettled"
  from notices n join posts p on p.id = n.post_id join channels c on c.id = p.channel_id
    join brands b on b.id = n.brand_id`;

const withBrand = ({ slug, brandName, zone, ...notice }: Row): Notice => ({
  ...notice,
  brand: { slug, name: brandName, zone },
});

/** What somebody was told, the last first. @param isFresh only what they have still to look at */
export async function listNotices(
  db: Queryable,
  personId: string,
  { isFresh, limit }: { isFresh: boolean; limit: number },
): Promise<Notice[]> {
  const rows = await db.rows<Row>(
    `select * from (
       ${SELECT}
       where n.person_id = $1 and p.deleted_at is null and ${OF_BRANDS_THEY_WORK_FOR}
         and (not $2 or n.read_at is null)
     ) told where not $2 or not told."isSettled"
     order by "madeAt" desc, id limit $3`,
    [personId, isFresh, limit],
  );
  return rows.map(withBrand);
}

/** How much somebody has still to look at. */
export async function countFreshNotices(db: Queryable, personId: string): Promise<number> {
  const [row] = await db.rows<{ count: number }>(
    `select count(*)::int as count from notices n join posts p on p.id = n.post_id
     where n.person_id = $1 and n.read_at is null and p.deleted_at is null and ${OF_BRANDS_THEY_WORK_FOR}
       and not ${IS_SETTLED}`,
    [personId],
  );
  return row!.count;
}

/** Notes that somebody read their notices: those named, or with null all. */
export async function readNotices(
  tx: Queryable,
  personId: string,
  ids: readonly string[] | null,
  at: Instant,
): Promise<void> {
  await tx.run(
    'update notices set read_at = $3 where person_id = $1 and read_at is null and ($2::uuid[] is null or id = any($2))',
    [personId, ids, at],
  );
}

/** A notice that is due to be mailed. */
type ToMail = Notice & { mailAddress: string; tries: number };

/** The notices that are to be mailed by now, the oldest first; those of people who are archived are not. */
export async function listToMail(db: Queryable, now: Instant, limit: number): Promise<ToMail[]> {
  const rows = await db.rows<Row & { mailAddress: string; tries: number }>(
    `select told.*, w.mail_address as "mailAddress", m.mail_tries as tries
     from (${SELECT} where n.mail_due_at <= $1 and p.deleted_at is null and ${OF_BRANDS_THEY_WORK_FOR}) told
       join notices m on m.id = told.id join people w on w.id = m.person_id
     where w.archived_at is null order by m.mail_due_at, told.id limit $2`,
    [now, limit],
  );
  return rows.map(({ mailAddress, tries, ...row }) => ({ ...withBrand(row), mailAddress, tries }));
}

/** Ends the mailing of a notice. @param at when it was handed over; null where it never was: why not stays known */
export async function endMail(tx: Queryable, id: string, at: Instant | null): Promise<void> {
  await tx.run(
    `update notices set mail_due_at = null, mailed_at = $2::timestamptz,
       mail_problem = case when $2::timestamptz is null then mail_problem else '' end
     where id = $1`,
    [id, at],
  );
}

/** Why the last mail to somebody was not taken; null where it was, or none was sent yet. */
export async function lastMailProblem(db: Queryable, personId: string): Promise<string | null> {
  const [last] = await db.rows<{ problem: string }>(
    `select mail_problem as problem from notices
     where person_id = $1 and (mailed_at is not null or mail_problem <> '') order by made_at desc, id limit 1`,
    [personId],
  );
  return last && last.problem !== '' ? last.problem : null;
}

/** Tries the mailing of a notice again later. */
export async function putMailOff(tx: Queryable, id: string, dueAt: Instant, problem: string): Promise<void> {
  await tx.run('update notices set mail_due_at = $2, mail_tries = mail_tries + 1, mail_problem = $3 where id = $1', [
    id,
    dueAt,
    problem,
  ]);
}
