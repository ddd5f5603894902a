import { readTitle } from '@/core/pieces/piece';
import { WORKS, type Work as Sort } from '@/core/prep/step';
import type { Result } from '@/core/refusal';
import { readDate, readTime, type LocalDate, type LocalTime } from '@/core/time/plan';
import {
  deleteBatchDay,
  fillBatchDay,
  insertBatchDay,
  listBatchSteps,
  maybeBatchDay,
  updateBatchDay,
  type BatchDay,
  type Need,
} from '@/data/prep/batchDays';
import { listHoldersOfSteps } from '@/data/prep/steps';
import { recount } from './countPrep';
import { mustMay } from '../rights/mustMay';
import { doing, must, notFound, refused, STALE, type Doing, type Work } from '../useCase';

/** What a batch day is made of. */
export interface BatchInput {
  work: Sort;
  name: string;
  day: LocalDate;
  startsAt: LocalTime;
  /** In the running order. */
  stepIds: readonly string[];
}

/** Steps and needs of one batch day. */
const BATCH_LIMIT = 60;

/** Makes a batch day of open steps of one sort, which are pinned to it. */
export function makeBatchDay(work: Work, brandId: string, input: BatchInput): Promise<Result<{ id: string }>> {
  return doing(work, async (act) => {
    await mustMay(act, 'planBatchDays', brandId);
    if (!WORKS.includes(input.work)) refused({ code: 'badWork', field: 'work', message: 'Choose a kind of work.' });
    if (input.stepIds.length === 0)
      refused({ code: 'noSteps', field: 'stepIds', message: 'Pick at least one step for the day.' });
    const batch = {
      id: act.ids(),
      brandId,
      work: input.work,
      name: must(readTitle(input.name, 'name')),
      day: must(readDate(input.day, 'day')),
      startsAt: must(readTime(input.startsAt, 'startsAt')),
      needs: [],
    };
    await insertBatchDay(act.tx, { ...batch, createdBy: act.actorId });
    await fill(act, batch, input.stepIds);
    await act.note({
      brandId,
      subject: 'brand',
      subjectId: batch.id,
      deed: 'batch day made',
      detail: { day: batch.day },
    });
    return { id: batch.id };
  });
}

/** Changes a batch day: its name, day, beginning, what is needed, or its running order. Open steps follow it to another day. */
export function changeBatchDay(
  work: Work,
  id: string,
  version: number,
  change: Partial<Omit<BatchInput, 'work'> & { needs: readonly Need[] }>,
): Promise<Result<BatchDay>> {
  return doing(work, async (act) => {
    const before = await takeBatch(act, id);
    if (before.version !== version) refused(STALE);
    const needs = (change.needs ?? before.needs).map(({ text, done }) => ({ text: text.trim().slice(0, 200), done }));
    if (needs.length > BATCH_LIMIT)
      refused({ code: 'tooMany', field: 'needs', message: `At most ${BATCH_LIMIT} things are kept in mind.` });
    const after: BatchDay = {
      ...before,
      name: change.name === undefined ? before.name : must(readTitle(change.name, 'name')),
      day: change.day === undefined ? before.day : must(readDate(change.day, 'day')),
      startsAt: change.startsAt === undefined ? before.startsAt : must(readTime(change.startsAt, 'startsAt')),
      needs: needs.filter(({ text }) => text !== ''),
    };
    if (!(await updateBatchDay(act.tx, after))) refused(STALE);
    if (change.stepIds !== undefined || after.day !== before.day)
      await fill(act, after, change.stepIds ?? (await listBatchSteps(act.tx, id)).map((step) => step.id));
    return { ...after, version: version + 1 };
  });
}

/** Calls a batch day off: its open steps count back from their posts again. */
export function dropBatchDay(work: Work, id: string): Promise<Result<true>> {
  return doing(work, async (act) => {
    const batch = await takeBatch(act, id);
    await fill(act, batch, []);
    await deleteBatchDay(act.tx, id);
    await act.note({ brandId: batch.brandId, subject: 'brand', subjectId: id, deed: 'batch day called off' });
    return true as const;
  });
}

async function takeBatch(act: Doing, id: string): Promise<BatchDay> {
  const batch = (await maybeBatchDay(act.tx, id)) ?? refused(notFound('batch day'));
  await mustMay(act, 'planBatchDays', batch.brandId);
  return batch;
}

async function fill(
  act: Doing,
  batch: Pick<BatchDay, 'id' | 'brandId' | 'day'>,
  stepIds: readonly string[],
): Promise<void> {
  const ids = [...new Set(stepIds)];
  if (ids.length > BATCH_LIMIT)
    refused({ code: 'tooMany', field: 'stepIds', message: `A batch day holds ${BATCH_LIMIT} steps at most.` });
  const before = (await listBatchSteps(act.tx, batch.id)).map((step) => step.id);
  await fillBatchDay(act.tx, batch, ids);
  const holders = await listHoldersOfSteps(act.tx, [...before, ...ids], batch.brandId);
  await recount(act.tx, batch.brandId, holders, act.now);
}
