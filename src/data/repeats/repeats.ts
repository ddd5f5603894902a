import type { RepeatSaid } from '@/core/repeats/repeat';
import type { Instant, LocalDate, LocalTime } from '@/core/time/plan';
import type { Queryable } from '../database/db';
import { ownWords } from '../posts/ownWords';

/** What comes again on a channel, and makes its next posts ahead. */
export interface Repeat extends RepeatSaid {
  id: string;
  brandId: string;
  pieceId: string;
  channelId: string;
  /** The number of its first post. */
  firstNumber: number;
  /** The number the next post gets. */
  nextNumber: number;
  /** The last round a post was made for, wherever that post was moved since; null while there is none. */
  lastRound: LocalDate | null;
  ownerId: string;
  endedAt: Instant | null;
}

const COLUMNS = `id, brand_id as "brandId", piece_id as "pieceId", channel_id as "channelId", kind, name, format, rule,
  at_time as time, from_date as "from", to_date as "to", times, ahead, days_before as "daysBefore", work_days as "workDays",
  first_number as "firstNumber", next_number as "nextNumber", last_round as "lastRound", owner_id as "ownerId", ended_at as "endedAt"`;

/** The repeats of a brand that have not ended, by name. */
export function listRepeats(db: Queryable, brandId: string): Promise<Repeat[]> {
  return db.rows<Repeat>(`select ${COLUMNS} from repeats where brand_id = $1 and ended_at is null order by name, id`, [
    brandId,
  ]);
}

/** All repeats that have not ended: those that may have to make posts. */
export function listRunningRepeats(db: Queryable): Promise<Repeat[]> {
  return db.rows<Repeat>(`select ${COLUMNS} from repeats where ended_at is null order by id`);
}

/** The repeat with that id. */
export async function maybeRepeat(db: Queryable, id: string): Promise<Repeat | undefined> {
  return (await db.rows<Repeat>(`select ${COLUMNS} from repeats where id = $1`, [id]))[0];
}

/** The repeat with that id, held until the transaction ends. */
export async function maybeRepeatForUpdate(tx: Queryable, id: string): Promise<Repeat | undefined> {
  return (await tx.rows<Repeat>(`select ${COLUMNS} from repeats where id = $1 for update`, [id]))[0];
}

/** Adds a repeat, or writes all of a known one. */
export async function saveRepeat(tx: Queryable, repeat: Repeat): Promise<void> {
  await tx.run(
    `insert into repeats (id, brand_id, piece_id, channel_id, kind, name, format, rule, at_time, from_date, to_date, times, ahead,
       days_before, work_days, first_number, next_number, last_round, owner_id, ended_at)
     select x.id, x."brandId", x."pieceId", x."channelId", x.kind, x.name, x.format, x.rule, x.time, x."from", x."to", x.times, x.ahead,
       x."daysBefore", x."workDays", x."firstNumber", x."nextNumber", x."lastRound", x."ownerId", x."endedAt"
     from jsonb_to_record($1::jsonb) as x (id uuid, "brandId" uuid, "pieceId" uuid, "channelId" uuid, kind text, name text, format text,
       rule jsonb, time time, "from" date, "to" date, times int, ahead int, "daysBefore" int, "workDays" int, "firstNumber" int,
       "nextNumber" int, "lastRound" date, "ownerId" uuid, "endedAt" timestamptz)
     on conflict (id) do update set name = excluded.name, format = excluded.format, rule = excluded.rule, at_time = excluded.at_time,
       from_date = excluded.from_date, to_date = excluded.to_date, times = excluded.times, ahead = excluded.ahead,
       days_before = excluded.days_before, work_days = excluded.work_days, next_number = excluded.next_number,
       last_round = excluded.last_round, ended_at = excluded.ended_at`,
    [JSON.stringify(repeat)],
  );
}

/** A post of a repeat as far as the repeat looks at it. */
export interface RepeatPost {
  id: string;
  number: number;
  date: LocalDate | null;
  time: LocalTime | null;
  title: string;
  stage: string;
  hasWords: boolean;
  /** Somebody wrote it: it has words, or where it was made with words, these or what goes with them were changed since. */
  isWritten: boolean;
  /** It was taken down after it was published. */
  isTakenDown: boolean;
  version: number;
}

/** The posts of a repeat, set aside ones too, by number. */
export function listRepeatPosts(db: Queryable, repeatId: string): Promise<RepeatPost[]> {
  return db.rows<RepeatPost>(
    `select p.id, p.repeat_number as number, p.plan_date as date, p.plan_time as time, p.title, p.stage, p.version,
       ${ownWords('p')} as "hasWords",
       case when r.kind = 'series' then ${ownWords('p')}
         else p.stage in ('ready', 'scheduled') or exists (select 1 from post_versions v where v.post_id = p.id) end
         as "isWritten",
       exists (select 1 from take_downs t where t.post_id = p.id) as "isTakenDown"
     from posts p join repeats r on r.id = p.repeat_id where p.repeat_id = $1 and p.deleted_at is null order by p.repeat_number`,
    [repeatId],
  );
}

/** Puts a post in as that number of a repeat. @returns whether it belonged to no repeat that runs */
export async function joinRepeat(tx: Queryable, postId: string, repeatId: string, number: number): Promise<boolean> {
  const joined = await tx.run(
    `update posts p set repeat_id = $2, repeat_number = $3 where p.id = $1 and not exists (
       select 1 from repeats r where r.id = p.repeat_id and r.ended_at is null)`,
    [postId, repeatId, number],
  );
  return joined === 1;
}

/** Gives posts of one repeat other numbers among themselves, with the titles that say them. */
export async function renumberPosts(
  tx: Queryable,
  repeatId: string,
  posts: readonly { id: string; number: number; title: string }[],
): Promise<void> {
  // No two have one number at any time, so all are taken off first.
  await tx.run('update posts set repeat_number = -repeat_number where repeat_id = $1 and id = any($2::uuid[])', [
    repeatId,
    posts.map(({ id }) => id),
  ]);
  await tx.run(
    `update posts p set repeat_number = x.number, title = x.title, version = p.version + 1
     from jsonb_to_recordset($1::jsonb) as x (id uuid, number int, title text) where p.id = x.id`,
    [JSON.stringify(posts)],
  );
}

/** The days of the dates to plan around that have a title, in a span. */
export async function listKnownDaysOf(
  db: Queryable,
  brandId: string,
  title: string,
  from: LocalDate,
  to: LocalDate,
): Promise<LocalDate[]> {
  const rows = await db.rows<{ day: LocalDate }>(
    `select distinct from_date as day from known_dates
     where brand_id = $1 and title = $2 and from_date between $3 and $4 order by 1`,
    [brandId, title, from, to],
  );
  return rows.map(({ day }) => day);
}

/** Titles of dates to plan around that are still to come, by their next day. At most 500. */
export async function listKnownTitles(db: Queryable, brandId: string, from: LocalDate): Promise<string[]> {
  const rows = await db.rows<{ title: string }>(
    `select title from known_dates where brand_id = $1 and from_date >= $2 group by title order by min(from_date), title limit 500`,
    [brandId, from],
  );
  return rows.map(({ title }) => title);
}

/** The day of the next post that each of these repeats has ahead. */
export async function listNextDays(
  db: Queryable,
  repeatIds: readonly string[],
  today: LocalDate,
): Promise<Map<string, LocalDate>> {
  const rows = await db.rows<{ id: string; day: LocalDate }>(
    `select repeat_id as id, min(plan_date) as day from posts
     where repeat_id = any($1::uuid[]) and deleted_at is null and stage not in ('published', 'setAside') and plan_date >= $2
     group by repeat_id`,
    [repeatIds, today],
  );
  return new Map(rows.map(({ id, day }) => [id, day]));
}

/** What posts are a part of: the repeats among these that have not ended. */
export async function listNamesOfRepeats(
  db: Queryable,
  ids: readonly string[],
): Promise<Map<string, Pick<Repeat, 'id' | 'name' | 'kind'>>> {
  const rows = await db.rows<Pick<Repeat, 'id' | 'name' | 'kind'>>(
    'select id, name, kind from repeats where id = any($1::uuid[]) and ended_at is null',
    [ids],
  );
  return new Map(rows.map((one) => [one.id, one]));
}
