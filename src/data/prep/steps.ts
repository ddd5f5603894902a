import { noWork, type WorkCounts } from '@/core/prep/progress';
import type { PrepLine, Work } from '@/core/prep/step';
import type { Instant, LocalDate } from '@/core/time/plan';
import type { Queryable } from '../database/db';
import { manyRows } from '../database/manyRows';

/** Some work on a post, or on a piece as a whole: its holder. */
export interface Step extends PrepLine {
  id: string;
  brandId: string;
  /** The post it belongs to; null for a step of a piece. */
  postId: string | null;
  /** The piece it belongs to; null for a step of a post. */
  pieceId: string | null;
  position: number;
  pinned: LocalDate | null;
  /** Counted back from its holder's day; null while that has none and nobody pinned it. */
  day: LocalDate | null;
  /** The day on which it was given its day, in the brand's zone. */
  plannedOn: LocalDate | null;
  doneAt: Instant | null;
  doneOn: LocalDate | null;
  doneBy: string | null;
  /** The batch day it stands in, and its place there; null or absent outside of any. */
  batchId?: string | null;
  batchPosition?: number | null;
  version: number;
}

/** The fields of a step that people change. */
export const STEP_FIELDS = [
  'position',
  'title',
  'work',
  'ownerId',
  'craft',
  'lead',
  'leadIn',
  'minutes',
  'note',
  'needed',
  'ticksItself',
  'pinned',
  'doneAt',
  'doneOn',
  'doneBy',
  'batchId',
  'batchPosition',
] as const satisfies readonly (keyof Step)[];

const COLUMNS = `s.id, s.brand_id as "brandId", s.post_id as "postId", s.piece_id as "pieceId", s.position, s.title, s.work,
  s.owner_id as "ownerId", s.craft, s.lead, s.lead_in as "leadIn", s.minutes, s.note, s.needed, s.ticks_itself as "ticksItself", s.pinned, s.day,
  s.planned_on as "plannedOn", s.done_at as "doneAt", s.done_on as "doneOn", s.done_by as "doneBy",
  s.batch_id as "batchId", s.batch_position as "batchPosition", s.version`;

/** The post or piece a step belongs to. */
export const holderOf = ({ postId, pieceId }: Pick<Step, 'postId' | 'pieceId'>): string => (postId ?? pieceId)!;

/** Work that still matters: of live pieces and posts, and of published posts only what follows publishing. Over `STEP_JOINS`. */
export const STEP_OPEN = `s.done_at is null and case when s.post_id is null then g.deleted_at is null and g.set_aside_at is null
  else p.deleted_at is null and p.archived_at is null and p.stage <> 'setAside' and (p.stage <> 'published' or s.lead < 0)
  end`;

/** Steps `s` with their brand `b`, and their post `p` and channel `c`, or their piece `g`. */
export const STEP_JOINS = `steps s left join posts p on p.id = s.post_id left join channels c on c.id = p.channel_id
  left join pieces g on g.id = s.piece_id join brands b on b.id = s.brand_id`;

/** The steps of posts and pieces, each holder's in their order. */
export function listStepsOf(db: Queryable, holderIds: readonly string[]): Promise<Step[]> {
  return db.rows<Step>(
    `select ${COLUMNS} from steps s where s.holder_id = any($1::uuid[]) order by s.holder_id, s.position, s.id`,
    [holderIds],
  );
}

/** Steps by their ids, in no order. */
export function listStepsById(db: Queryable, ids: readonly string[]): Promise<Step[]> {
  return db.rows<Step>(`select ${COLUMNS} from steps s where s.id = any($1::uuid[])`, [ids]);
}

/** Locks a step for a change. */
export async function maybeStepForUpdate(tx: Queryable, id: string): Promise<Step | undefined> {
  return (await tx.rows<Step>(`select ${COLUMNS} from steps s where s.id = $1 for update`, [id]))[0];
}

/** Adds steps. */
export async function insertSteps(tx: Queryable, steps: readonly Omit<Step, 'version'>[]): Promise<void> {
  await tx.run(
    `insert into steps (id, brand_id, post_id, piece_id, position, title, work, owner_id, craft, lead, lead_in, minutes, note, needed,
       ticks_itself, pinned, day, planned_on, done_at, done_on, done_by, batch_id, batch_position)
     select x.id, x."brandId", x."postId", x."pieceId", x.position, x.title, x.work, x."ownerId", x.craft, x.lead, x."leadIn", x.minutes,
       x.note, x.needed, coalesce(x."ticksItself", false), x.pinned, x.day, x."plannedOn", x."doneAt", x."doneOn", x."doneBy",
       x."batchId", x."batchPosition"
     from jsonb_to_recordset($1::jsonb) as x (id uuid, "brandId" uuid, "postId" uuid, "pieceId" uuid, position int, title text, work text,
       "ownerId" uuid, craft text, lead int, "leadIn" text, minutes int, note text, needed boolean, "ticksItself" boolean, pinned date, day date,
       "plannedOn" date, "doneAt" timestamptz, "doneOn" date, "doneBy" uuid, "batchId" uuid, "batchPosition" int)`,
    [JSON.stringify(steps)],
  );
}

const LEAVES_BATCH = 'pinned is distinct from $12 and batch_id is not distinct from $18';

/** Writes the fields of a step that people change and raises its version; with another pin alone it leaves its batch day. @returns whether it had the version given */
export async function updateStep(tx: Queryable, step: Step): Promise<boolean> {
  const changed = await tx.run(
    `update steps set title = $3, work = $4, owner_id = $5, craft = $6, lead = $7, lead_in = $8, minutes = $9, note = $10,
       needed = $11, pinned = $12,
       batch_id = case when ${LEAVES_BATCH} then null else $18::uuid end,
       batch_position = case when ${LEAVES_BATCH} then null else $19::int end, done_at = $13, done_on = $14, done_by = $15,
       position = $16, ticks_itself = $17, version = version + 1
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
      step.position,
      step.ticksItself,
      step.batchId ?? null,
      step.batchPosition ?? null,
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

/** Puts the steps of a post or piece in an order. */
export async function orderSteps(tx: Queryable, holderId: string, ids: readonly string[]): Promise<void> {
  await tx.run(
    `update steps s set position = x.position from unnest($2::uuid[]) with ordinality as x (id, position)
     where s.id = x.id and s.holder_id = $1`,
    [holderId, ids],
  );
}

/** Says of open steps that they are done. @returns how many were open */
export function tickSteps(
  tx: Queryable,
  ids: readonly string[],
  done: { at: Instant; on: LocalDate; by: string | null },
): Promise<number> {
  return tx.run(
    `update steps set done_at = $2, done_on = $3, done_by = $4, version = version + 1
     where id = any($1::uuid[]) and done_at is null`,
    [ids, done.at, done.on, done.by],
  );
}

/** Takes steps away, of whichever posts and pieces. */
export async function deleteSteps(tx: Queryable, ids: readonly string[]): Promise<void> {
  if (ids.length > 0) await tx.run('delete from steps where id = any($1::uuid[])', [ids]);
}

/** Puts steps at their places, of many posts at once. */
export async function placeSteps(tx: Queryable, places: readonly Pick<Step, 'id' | 'position'>[]): Promise<void> {
  await tx.run(
    `update steps s set position = x.position from jsonb_to_recordset($1::jsonb) as x (id uuid, position int)
     where s.id = x.id and s.position <> x.position`,
    [JSON.stringify(places)],
  );
}

/** Takes the steps of a post or piece away that are not done. */
export async function deleteOpenSteps(tx: Queryable, holderId: string): Promise<void> {
  await tx.run('delete from steps where holder_id = $1 and done_at is null', [holderId]);
}

/** Gives the open steps with these ids to a person. @returns those that were given, and their holders */
export function handSteps(
  tx: Queryable,
  ids: readonly string[],
  personId: string,
): Promise<Pick<Step, 'id' | 'brandId' | 'postId' | 'pieceId' | 'title'>[]> {
  return tx.rows(
    `update steps set owner_id = $2, version = version + 1
     where id = any($1::uuid[]) and done_at is null and owner_id is distinct from $2
     returning id, brand_id as "brandId", post_id as "postId", piece_id as "pieceId", title`,
    [ids, personId],
  );
}

/** The posts and pieces with open steps of a person, or of a brand whoever does them. */
export async function listHoldersWithOpenSteps(
  db: Queryable,
  of: { personId: string } | { brandId: string },
): Promise<{ id: string; brandId: string }[]> {
  const [column, id] = 'personId' in of ? ['owner_id', of.personId] : ['brand_id', of.brandId];
  return db.rows(
    `select distinct holder_id as id, brand_id as "brandId" from steps where ${column} = $1 and done_at is null`,
    [id],
  );
}

/** The posts and pieces of a brand that these steps belong to. */
export async function listHoldersOfSteps(
  db: Queryable,
  stepIds: readonly string[],
  brandId: string,
): Promise<string[]> {
  const rows = await db.rows<{ id: string }>(
    'select distinct holder_id as id from steps where id = any($1::uuid[]) and brand_id = $2',
    [stepIds, brandId],
  );
  return rows.map(({ id }) => id);
}

/** Ids of the open steps of a person, of live posts and pieces of these brands or of all. */
export async function listOpenStepIdsOf(
  db: Queryable,
  personId: string,
  brandIds: readonly string[] | null = null,
): Promise<string[]> {
  const rows = await db.rows<{ id: string }>(
    `select s.id from ${STEP_JOINS} where s.owner_id = $1 and ($2::uuid[] is null or s.brand_id = any($2::uuid[])) and ${STEP_OPEN}`,
    [personId, brandIds],
  );
  return rows.map(({ id }) => id);
}

/**
 * How far the prep before publishing is of each piece, by sort of work: its own, and that of its posts that are neither out
 * nor set aside.
 */
export async function countWorkOfPieces(db: Queryable, pieceIds: readonly string[]): Promise<Map<string, WorkCounts>> {
  const rows = await db.rows<{ id: string; work: Work; done: number; all: number }>(
    `select id, work, count(done_at)::int as done, count(*)::int as all from (
       select p.piece_id as id, s.work, s.done_at from posts p join steps s on s.post_id = p.id
       where p.piece_id = any($1::uuid[]) and p.deleted_at is null and p.stage not in ('published', 'setAside') and s.lead >= 0
       union all
       select s.piece_id, s.work, s.done_at from steps s where s.piece_id = any($1::uuid[]) and s.lead >= 0
     ) x group by id, work`,
    [pieceIds],
  );
  const counts = new Map<string, WorkCounts>();
  for (const { id, work, done, all } of rows) {
    const own = counts.get(id) ?? noWork();
    own[work] = [done, all];
    counts.set(id, own);
  }
  return counts;
}

/** The post or piece of a step, as a desk names it. */
export interface StepHolder {
  title: string;
  /** Of a post; null for a piece. */
  channelId: string | null;
  callSign: string | null;
  color: string | null;
  date: LocalDate | null;
  brandSlug: string;
}

/** A step on a desk, with what is known of its holder. */
export interface DeskStep extends Step {
  /** Who does the open step before it, if there is one; null where nobody is named. */
  after: { title: string; ownerId: string | null } | null;
  /** Who does the open step that comes after it. */
  before: { title: string; ownerId: string | null } | null;
  holder: StepHolder;
}

/** The holder of a step as JSON; over `STEP_JOINS`. */
export const STEP_HOLDER = `json_build_object('title', coalesce(p.title, g.title), 'channelId', p.channel_id, 'callSign', c.call_sign,
  'color', c.color, 'date', coalesce(p.plan_date, g.prep_day), 'brandSlug', b.slug)`;

/** The first open step on one side of a step, among those of its holder. */
const firstOpen = (side: '<' | '>'): string =>
  `(select json_build_object('title', o.title, 'ownerId', o.owner_id) from steps o
    where o.holder_id = s.holder_id and o.done_at is null and o.position ${side} s.position
    order by o.position limit 1)`;

const DESK_COLUMNS = `${COLUMNS}, ${STEP_HOLDER} as holder, ${firstOpen('<')} as after, ${firstOpen('>')} as before`;

/** The open steps of a person up to a day, most urgent first, over all brands; at most `limit`. */
export function listOpenStepsOf(db: Queryable, personId: string, to: LocalDate, limit: number): Promise<DeskStep[]> {
  return db.rows<DeskStep>(
    `select ${DESK_COLUMNS} from ${STEP_JOINS} where s.owner_id = $1 and s.day <= $2 and ${STEP_OPEN}
     order by s.day, p.plan_date, p.plan_time, s.holder_id, s.position limit ${limit}`,
    [personId, to],
  );
}

/** How many open steps each person has, by their id; absent for those without. */
export async function countOpenSteps(db: Queryable, personIds: readonly string[]): Promise<Map<string, number>> {
  const rows = await db.rows<{ id: string; count: number }>(
    `select s.owner_id as id, count(*)::int as count from ${STEP_JOINS}
     where s.owner_id = any($1::uuid[]) and ${STEP_OPEN} group by s.owner_id`,
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
     from ${STEP_JOINS} where s.owner_id = $1 and ${STEP_OPEN}`,
    [personId, before, after],
  );
  return row!;
}

/** Open steps of brands that nobody is named for, up to a day; at most `limit`. */
export function listUnownedSteps(db: Queryable, brandId: string, to: LocalDate, limit: number): Promise<DeskStep[]> {
  return db.rows<DeskStep>(
    `select ${DESK_COLUMNS} from ${STEP_JOINS} where s.brand_id = $1 and s.owner_id is null and s.day <= $2 and ${STEP_OPEN}
     order by s.day, s.holder_id, s.position limit ${limit}`,
    [brandId, to],
  );
}

/** An open step as the calendar shows it on its day. */
export interface CalendarStep extends Pick<
  Step,
  'id' | 'postId' | 'pieceId' | 'brandId' | 'title' | 'work' | 'ownerId' | 'craft' | 'minutes' | 'pinned' | 'plannedOn'
> {
  /** Null for a step of a piece. */
  channelId: string | null;
  day: LocalDate;
  holderTitle: string;
  brandSlug: string;
}

/** Steps the calendar shows at most. */
const CALENDAR_STEPS = 2_000;

/** Open steps of brands from one day to another, both included; of everybody, or of one person. */
export function listStepsBetween(
  db: Queryable,
  brandIds: readonly string[],
  from: LocalDate,
  to: LocalDate,
  personId: string | null,
): Promise<CalendarStep[]> {
  return manyRows<CalendarStep>(
    db,
    {
      id: 's.id',
      postId: 's.post_id',
      pieceId: 's.piece_id',
      brandSlug: 'b.slug',
      brandId: 's.brand_id',
      channelId: 'p.channel_id',
      day: 's.day',
      title: 's.title',
      work: 's.work',
      ownerId: 's.owner_id',
      craft: 's.craft',
      minutes: 's.minutes',
      pinned: 's.pinned',
      plannedOn: 's.planned_on',
      holderTitle: 'coalesce(p.title, g.title)',
    },
    `${STEP_JOINS} where s.brand_id = any($1::uuid[]) and s.day between $2 and $3
       and ($4::uuid is null or s.owner_id = $4) and ${STEP_OPEN}
     order by s.day, s.owner_id, s.holder_id, s.position limit ${CALENDAR_STEPS}`,
    [brandIds, from, to, personId],
  );
}
