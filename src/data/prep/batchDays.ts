import { GUESS_MINUTES } from '@/core/prep/load';
import type { Work } from '@/core/prep/step';
import type { LocalDate, LocalTime } from '@/core/time/plan';
import type { Queryable } from '../database/db';
import { STEP_HOLDER, STEP_JOINS, STEP_OPEN, type Step, type StepHolder } from './steps';

/** Something to have at hand on a batch day. */
export interface Need {
  text: string;
  done: boolean;
}

/** Several steps of one kind, done in one sitting. */
export interface BatchDay {
  id: string;
  brandId: string;
  work: Work;
  name: string;
  day: LocalDate;
  startsAt: LocalTime;
  needs: Need[];
  version: number;
}

/** A batch day with how far it is. */
export interface BatchDayLine extends BatchDay {
  brandSlug: string;
  steps: number;
  done: number;
  minutes: number;
}

/** A step in the running order of a batch day. */
export interface BatchStep extends Pick<
  Step,
  'id' | 'postId' | 'pieceId' | 'title' | 'minutes' | 'ownerId' | 'note' | 'doneOn'
> {
  holder: StepHolder;
}

const COLUMNS = `b.id, b.brand_id as "brandId", b.work, b.name, b.day, b.starts_at as "startsAt", b.needs, b.version`;

/** Adds a batch day. */
export async function insertBatchDay(
  tx: Queryable,
  batch: Omit<BatchDay, 'version'> & { createdBy: string },
): Promise<void> {
  await tx.run(
    `insert into batch_days (id, brand_id, work, name, day, starts_at, needs, created_by)
     values ($1, $2, $3, $4, $5, $6, $7::jsonb, $8)`,
    [
      batch.id,
      batch.brandId,
      batch.work,
      batch.name,
      batch.day,
      batch.startsAt,
      JSON.stringify(batch.needs),
      batch.createdBy,
    ],
  );
}

/** The batch day with that id, if there is one. */
export async function maybeBatchDay(db: Queryable, id: string): Promise<BatchDay | undefined> {
  return (await db.rows<BatchDay>(`select ${COLUMNS} from batch_days b where b.id = $1`, [id]))[0];
}

/** Writes what can be changed of a batch day and raises its version. @returns whether it had the version given */
export async function updateBatchDay(tx: Queryable, batch: BatchDay): Promise<boolean> {
  const changed = await tx.run(
    `update batch_days set name = $3, day = $4, starts_at = $5, needs = $6::jsonb, version = version + 1
     where id = $1 and version = $2`,
    [batch.id, batch.version, batch.name, batch.day, batch.startsAt, JSON.stringify(batch.needs)],
  );
  return changed === 1;
}

/** Takes a batch day away; its steps have to be taken out before. */
export async function deleteBatchDay(tx: Queryable, id: string): Promise<void> {
  await tx.run('delete from batch_days where id = $1', [id]);
}

/** The batch days of brands from one day to another, both included, with how far each is. */
export function listBatchDays(
  db: Queryable,
  brandIds: readonly string[],
  from: LocalDate,
  to: LocalDate,
): Promise<BatchDayLine[]> {
  return db.rows<BatchDayLine>(
    `select ${COLUMNS}, r.slug as "brandSlug", count(s.id)::int as steps, count(s.done_at)::int as done, 
       coalesce(sum(coalesce(s.minutes, ${GUESS_MINUTES})) filter (where s.id is not null), 0)::int as minutes
     from batch_days b join brands r on r.id = b.brand_id left join steps s on s.batch_id = b.id
     where b.brand_id = any($1::uuid[]) and b.day between $2 and $3
     group by b.id, r.slug order by b.day, b.starts_at, b.id limit 200`,
    [brandIds, from, to],
  );
}

const BATCH_STEP_COLUMNS = `s.id, s.post_id as "postId", s.piece_id as "pieceId", s.title, s.minutes,
  s.owner_id as "ownerId", s.note, s.done_on as "doneOn", ${STEP_HOLDER} as holder from ${STEP_JOINS}`;

/** The steps of a batch day in their running order. */
export function listBatchSteps(db: Queryable, batchId: string): Promise<BatchStep[]> {
  return db.rows<BatchStep>(
    `select ${BATCH_STEP_COLUMNS} where s.batch_id = $1 and p.deleted_at is null and g.deleted_at is null order by s.batch_position, s.id`,
    [batchId],
  );
}

/** Open steps of one sort that stand in no batch day, by the day they are due; at most 200. */
export function listStepsForBatch(db: Queryable, brandId: string, work: Work): Promise<BatchStep[]> {
  return db.rows<BatchStep>(
    `select ${BATCH_STEP_COLUMNS} where s.brand_id = $1 and s.work = $2 and s.batch_id is null and ${STEP_OPEN}
     order by s.day nulls last, s.holder_id, s.position limit 200`,
    [brandId, work],
  );
}

/**
 * Puts steps of a brand into a batch day, in this order, pinned to its day. What stood in it and is not named leaves it.
 *
 * @param places of the steps, where they were in it before: what left it meanwhile may come back to its own
 */
export async function fillBatchDay(
  tx: Queryable,
  batch: Pick<BatchDay, 'id' | 'brandId' | 'day'>,
  stepIds: readonly string[],
  places: readonly (number | null)[] = stepIds.map((_id, at) => at + 1),
): Promise<void> {
  await tx.run(
    `update steps set batch_id = null, batch_position = null, version = version + 1,
       pinned = case when done_at is null then null else pinned end
     where batch_id = $1 and id <> all($2::uuid[])`,
    [batch.id, stepIds],
  );
  await tx.run(
    `update steps s set batch_id = $1, batch_position = x.place, version = version + 1,
       pinned = case when s.done_at is null then $4::date else s.pinned end
     from unnest($3::uuid[], $5::int[]) as x (id, place) where s.id = x.id and s.brand_id = $2`,
    [batch.id, batch.brandId, stepIds, batch.day, places],
  );
}

/** The batch days that hold any of these steps. */
export async function listBatchesOfSteps(db: Queryable, stepIds: readonly string[]): Promise<string[]> {
  const rows = await db.rows<{ id: string }>(
    'select distinct batch_id as id from steps where id = any($1::uuid[]) and batch_id is not null order by 1',
    [stepIds],
  );
  return rows.map(({ id }) => id);
}

/** The steps of a batch day in their running order, also those of deleted posts, which may be restored. */
export const listPlacesInBatch = (db: Queryable, batchId: string): Promise<{ id: string; place: number | null }[]> =>
  db.rows('select id, batch_position as place from steps where batch_id = $1 order by batch_position, id', [batchId]);
