import type { PrepLine } from '@/core/prep/step';
import type { Instant, LocalDate } from '@/core/time/plan';
import type { Queryable } from './db';

/** A piece of work on a post. */
export interface Step extends PrepLine {
  id: string;
  brandId: string;
  postId: string;
  position: number;
  pinned: LocalDate | null;
  /** Counted back from the post's day; null while that has none and nobody pinned it. */
  day: LocalDate | null;
  /** The day on which it was given its day, in the brand's zone. */
  plannedOn: LocalDate | null;
  doneAt: Instant | null;
  doneOn: LocalDate | null;
  doneBy: string | null;
  version: number;
}

const COLUMNS = `s.id, s.brand_id as "brandId", s.post_id as "postId", s.position, s.title, s.work,
  s.owner_id as "ownerId", s.craft, s.lead, s.lead_in as "leadIn", s.minutes, s.note, s.needed, s.pinned, s.day,
  s.planned_on as "plannedOn", s.done_at as "doneAt", s.done_on as "doneOn", s.done_by as "doneBy", s.version`;

/** Work that still matters: of live posts, and of published ones only what follows publishing. */
const OPEN = `s.done_at is null and p.deleted_at is null and p.archived_at is null and p.stage <> 'setAside'
  and (p.stage <> 'published' or s.lead < 0)`;

const JOINS = `steps s join posts p on p.id = s.post_id join channels c on c.id = p.channel_id
  join brands b on b.id = s.brand_id`;

/** The steps of posts, in their order. */
export function listStepsOfPosts(db: Queryable, postIds: readonly string[]): Promise<Step[]> {
  return db.rows<Step>(
    `select ${COLUMNS} from steps s where s.post_id = any($1::uuid[]) order by s.post_id, s.position, s.id`,
    [postIds],
  );
}

/** Locks a step for a change. */
export async function maybeStepForUpdate(tx: Queryable, id: string): Promise<Step | undefined> {
  return (await tx.rows<Step>(`select ${COLUMNS} from steps s where s.id = $1 for update`, [id]))[0];
}

/** Adds steps. */
export async function insertSteps(tx: Queryable, steps: readonly Omit<Step, 'version'>[]): Promise<void> {
  await tx.run(
    `insert into steps (id, brand_id, post_id, position, title, work, owner_id, craft, lead, lead_in, minutes, note, needed,
       pinned, day, planned_on, done_at, done_on, done_by)
     select x.id, x."brandId", x."postId", x.position, x.title, x.work, x."ownerId", x.craft, x.lead, x."leadIn", x.minutes,
       x.note, x.needed, x.pinned, x.day, x."plannedOn", x."doneAt", x."doneOn", x."doneBy"
     from jsonb_to_recordset($1::jsonb) as x (id uuid, "brandId" uuid, "postId" uuid, position int, title text, work text,
       "ownerId" uuid, craft text, lead int, "leadIn" text, minutes int, note text, needed boolean, pinned date, day date,
       "plannedOn" date, "doneAt" timestamptz, "doneOn" date, "doneBy" uuid)`,
    [JSON.stringify(steps)],
  );
}

/** Writes the fields of a step that people change and raises its version; with another pin it leaves its batch day. @returns whether it had the version given */
export async function updateStep(tx: Queryable, step: Step): Promise<boolean> {
  const changed = await tx.run(
    `update steps set title = $3, work = $4, owner_id = $5, craft = $6, lead = $7, lead_in = $8, minutes = $9, note = $10,
       needed = $11, pinned = $12,
       batch_id = case when pinned is distinct from $12 then null else batch_id end,
       batch_position = case when pinned is distinct from $12 then null else batch_position end, done_at = $13, done_on = $14, done_by = $15, version = version + 1
     where id = $1 and version = $2`,
    [
      step.id,
      step.version,
      step.title,
      step.work,
      step.ownerId,
      step.craft,
      step.lead,
      step.leadIn,
      step.minutes,
      step.note,
      step.needed,
      step.pinned,
      step.doneAt,
      step.doneOn,
      step.doneBy,
    ],
  );
  return changed === 1;
}

/** Writes the days that steps were counted to. */
export async function updateStepDays(
  tx: Queryable,
  days: readonly Pick<Step, 'id' | 'day' | 'plannedOn'>[],
): Promise<void> {
  if (days.length === 0) return;
  await tx.run(
    `update steps s set day = x.day, planned_on = x."plannedOn"
     from jsonb_to_recordset($1::jsonb) as x (id uuid, day date, "plannedOn" date) where s.id = x.id`,
    [JSON.stringify(days)],
  );
}

/** Puts the steps of a post in an order. */
export async function orderSteps(tx: Queryable, postId: string, ids: readonly string[]): Promise<void> {
  await tx.run(
    `update steps s set position = x.position from unnest($2::uuid[]) with ordinality as x (id, position)
     where s.id = x.id and s.post_id = $1`,
    [postId, ids],
  );
}

/** Takes a step away. */
export async function deleteStep(tx: Queryable, id: string): Promise<void> {
  await tx.run('delete from steps where id = $1', [id]);
}

/** Takes the steps of a post away that are not done. */
export async function deleteOpenSteps(tx: Queryable, postId: string): Promise<void> {
  await tx.run('delete from steps where post_id = $1 and done_at is null', [postId]);
}

/** Gives the open steps with these ids to a person. @returns those that were given, and their posts */
export function handSteps(
  tx: Queryable,
  ids: readonly string[],
  personId: string,
): Promise<Pick<Step, 'id' | 'brandId' | 'postId' | 'title'>[]> {
  return tx.rows(
    `update steps set owner_id = $2, version = version + 1
     where id = any($1::uuid[]) and done_at is null and owner_id is distinct from $2
     returning id, brand_id as "brandId", post_id as "postId", title`,
    [ids, personId],
  );
}

/** The posts with open steps of a person, or of a brand whoever does them. */
export async function listPostsWithOpenSteps(
  db: Queryable,
  of: { personId: string } | { brandId: string },
): Promise<{ id: string; brandId: string }[]> {
  const [column, id] = 'personId' in of ? ['owner_id', of.personId] : ['brand_id', of.brandId];
  return db.rows(
    `select distinct post_id as id, brand_id as "brandId" from steps where ${column} = $1 and done_at is null`,
    [id],
  );
}

/** The posts of a brand that these steps belong to. */
export async function listPostsOfSteps(db: Queryable, stepIds: readonly string[], brandId: string): Promise<string[]> {
  const rows = await db.rows<{ id: string }>(
    'select distinct post_id as id from steps where id = any($1::uuid[]) and brand_id = $2',
    [stepIds, brandId],
  );
  return rows.map(({ id }) => id);
}

/** Ids of the open steps of a person, of live posts of these brands or of all. */
export async function listOpenStepIdsOf(
  db: Queryable,
  personId: string,
  brandIds: readonly string[] | null = null,
): Promise<string[]> {
  const rows = await db.rows<{ id: string }>(
    `select s.id from ${JOINS} where s.owner_id = $1 and ($2::uuid[] is null or s.brand_id = any($2::uuid[])) and ${OPEN}`,
    [personId, brandIds],
  );
  return rows.map(({ id }) => id);
}

/** A step on a desk or on the calendar, with what is known of its post. */
export interface DeskStep extends Step {
  /** Who does the open step before it, if there is one; null where nobody is named. */
  after: { title: string; ownerId: string | null } | null;
  /** Who does the open step that comes after it. */
  before: { title: string; ownerId: string | null } | null;
  post: {
    title: string;
    channelId: string;
    callSign: string;
    color: string;
    date: LocalDate | null;
    brandSlug: string;
  };
}

const DESK_COLUMNS = `${COLUMNS}, json_build_object('title', p.title, 'channelId', p.channel_id, 'callSign', c.call_sign,
  'color', c.color, 'date', p.plan_date, 'brandSlug', b.slug) as post,
  (select json_build_object('title', o.title, 'ownerId', o.owner_id) from steps o
    where o.post_id = s.post_id and o.done_at is null and o.position < s.position order by o.position limit 1) as after,
  (select json_build_object('title', o.title, 'ownerId', o.owner_id) from steps o
    where o.post_id = s.post_id and o.done_at is null and o.position > s.position order by o.position limit 1) as before`;

/** The open steps of a person up to a day, most urgent first, over all brands; at most `limit`. */
export function listOpenStepsOf(db: Queryable, personId: string, to: LocalDate, limit: number): Promise<DeskStep[]> {
  return db.rows<DeskStep>(
    `select ${DESK_COLUMNS} from ${JOINS} where s.owner_id = $1 and s.day <= $2 and ${OPEN}
     order by s.day, p.plan_date, p.plan_time, s.post_id, s.position limit ${limit}`,
    [personId, to],
  );
}

/** How many open steps each person has, by their id; absent for those without. */
export async function countOpenSteps(db: Queryable, personIds: readonly string[]): Promise<Map<string, number>> {
  const rows = await db.rows<{ id: string; count: number }>(
    `select s.owner_id as id, count(*)::int as count from ${JOINS}
     where s.owner_id = any($1::uuid[]) and ${OPEN} group by s.owner_id`,
    [personIds],
  );
  return new Map(rows.map(({ id, count }) => [id, count]));
}

/** How many open steps of a person lie before a day, and how many after another. */
export async function countOpenStepsOf(
  db: Queryable,
  personId: string,
  before: LocalDate,
  after: LocalDate,
): Promise<{ late: number; later: number }> {
  const [row] = await db.rows<{ late: number; later: number }>(
    `select count(*) filter (where s.day < $2)::int as late, count(*) filter (where s.day > $3)::int as later
     from ${JOINS} where s.owner_id = $1 and ${OPEN}`,
    [personId, before, after],
  );
  return row!;
}

/** Open steps of brands that nobody is named for, up to a day; at most `limit`. */
export function listUnownedSteps(db: Queryable, brandId: string, to: LocalDate, limit: number): Promise<DeskStep[]> {
  return db.rows<DeskStep>(
    `select ${DESK_COLUMNS} from ${JOINS} where s.brand_id = $1 and s.owner_id is null and s.day <= $2 and ${OPEN}
     order by s.day, s.post_id, s.position limit ${limit}`,
    [brandId, to],
  );
}

/** An open step as the calendar shows it on its day. */
export interface CalendarStep extends Pick<
  Step,
  'id' | 'postId' | 'brandId' | 'title' | 'work' | 'ownerId' | 'craft' | 'minutes' | 'pinned' | 'plannedOn'
> {
  channelId: string;
  day: LocalDate;
  postTitle: string;
}

/** Steps the calendar shows at most. */
const CALENDAR_STEPS = 2_000;

/** Open steps of brands from one day to another, both included; of everybody, or of one person. */
export async function listStepsBetween(
  db: Queryable,
  brandIds: readonly string[],
  from: LocalDate,
  to: LocalDate,
  personId: string | null,
): Promise<CalendarStep[]> {
  const [row] = await db.rows<{ steps: CalendarStep[] }>(
    `select coalesce(json_agg(x), '[]') as steps from (
       select s.id, s.post_id as "postId", s.brand_id as "brandId", p.channel_id as "channelId", s.day, s.title, s.work,
         s.owner_id as "ownerId", s.craft, s.minutes, s.pinned, s.planned_on as "plannedOn", p.title as "postTitle"
       from ${JOINS} where s.brand_id = any($1::uuid[]) and s.day between $2 and $3
         and ($4::uuid is null or s.owner_id = $4) and ${OPEN}
       order by s.day, s.owner_id, s.post_id, s.position limit ${CALENDAR_STEPS}) x`,
    [brandIds, from, to, personId],
  );
  return row!.steps;
}
