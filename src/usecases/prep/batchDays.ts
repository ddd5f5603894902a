import { quoted } from '@/core/calendar/change';
import { readTitle } from '@/core/pieces/piece';
import { WORKS, type Work as Sort } from '@/core/prep/step';
import type { Result } from '@/core/refusal';
import { readDate, readTime, type LocalDate, type LocalTime } from '@/core/time/plan';
import {
  deleteBatchDay,
  fillBatchDay,
  insertBatchDay,
  listBatchesOfSteps,
  listBatchSteps,
  listPlacesInBatch,
  maybeBatchDay,
  updateBatchDay,
  type BatchDay,
  type Need,
} from '@/data/prep/batchDays';
import { listHoldersOfSteps } from '@/data/prep/steps';
import type { ChangeItem } from '@/data/undo/changes';
import { noteChange } from '../undo/noteChange';
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
    await watched(
      act,
      batch,
      `Made the batch day ${quoted(batch.name)}`,
      async () => {
        await insertBatchDay(act.tx, { ...batch, createdBy: act.actorId });
        await fillBatch(act, batch, input.stepIds);
      },
      input.stepIds,
    );
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
    await watched(
      act,
      before,
      `Changed the batch day ${quoted(before.name)}`,
      async () => {
        if (!(await updateBatchDay(act.tx, after))) refused(STALE);
        if (change.stepIds !== undefined || after.day !== before.day)
          await fillBatch(act, after, change.stepIds ?? (await listPlacesInBatch(act.tx, id)).map((step) => step.id));
      },
      change.stepIds,
    );
    return { ...after, version: version + 1 };
  });
}

/** Calls a batch day off: its open steps count back from their posts again. */
export function dropBatchDay(work: Work, id: string): Promise<Result<true>> {
  return doing(work, async (act) => {
    const batch = await takeBatch(act, id);
    await watched(act, batch, `Called off the batch day ${quoted(batch.name)}`, () => callOff(act, batch));
    await act.note({ brandId: batch.brandId, subject: 'brand', subjectId: id, deed: 'batch day called off' });
    return true as const;
  });
}

async function takeBatch(act: Doing, id: string): Promise<BatchDay> {
  const batch = (await maybeBatchDay(act.tx, id)) ?? refused(notFound('batch day'));
  await mustMay(act, 'planBatchDays', batch.brandId);
  return batch;
}

/** A batch day as undoing puts it back. */
export type BatchState = Omit<BatchDay, 'version'> & { stepIds: string[]; places?: (number | null)[] };

/** What a batch day is now; null where there is none. */
export async function stateOfBatch(act: Doing, id: string): Promise<BatchState | null> {
  const batch = await maybeBatchDay(act.tx, id);
  if (!batch) return null;
  const { version: _counted, ...state } = batch;
  const steps = await listPlacesInBatch(act.tx, id);
  return { ...state, stepIds: steps.map((step) => step.id), places: steps.map(({ place }) => place) };
}

/** Does something to a batch day so that it can be undone, with what other batch days lose to it. */
async function watched(
  act: Doing,
  { id, brandId }: Pick<BatchDay, 'id' | 'brandId'>,
  label: string,
  write: () => Promise<void>,
  stepIds: readonly string[] = [],
): Promise<void> {
  const ids = [id, ...(await listBatchesOfSteps(act.tx, stepIds)).filter((other) => other !== id)];
  const before = new Map<string, BatchState | null>();
  for (const one of ids) before.set(one, await stateOfBatch(act, one));
  await write();
  const items: ChangeItem[] = [];
  for (const one of ids) {
    const [was, is] = [before.get(one)!, await stateOfBatch(act, one)];
    if (JSON.stringify(was) !== JSON.stringify(is))
      items.push({ subject: 'batchDay', id: one, before: was, after: is });
  }
  if (items.length > 0) await noteChange(act, { brandId, label, items });
}

/** Deletes a batch day; its open steps count back from their posts again. */
export async function callOff(act: Doing, batch: Pick<BatchDay, 'id' | 'brandId' | 'day'>): Promise<void> {
  await fillBatch(act, batch, []);
  await deleteBatchDay(act.tx, batch.id);
}

/** Gives a batch day its steps in their running order. @param places where they stood in it before */
export async function fillBatch(
  act: Doing,
  batch: Pick<BatchDay, 'id' | 'brandId' | 'day'>,
  stepIds: readonly string[],
  places?: readonly (number | null)[],
): Promise<void> {
  const ids = [...new Set(stepIds)];
  if (ids.length > BATCH_LIMIT)
    refused({ code: 'tooMany', field: 'stepIds', message: `A batch day holds ${BATCH_LIMIT} steps at most.` });
  const before = (await listBatchSteps(act.tx, batch.id)).map((step) => step.id);
  await fillBatchDay(act.tx, batch, ids, places);
  const holders = await listHoldersOfSteps(act.tx, [...before, ...ids], batch.brandId);
  await recount(act.tx, batch.brandId, holders, act.now);
}
