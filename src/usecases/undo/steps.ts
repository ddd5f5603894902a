import { STEPS_LIMIT } from '@/core/prep/step';
import type { NotedChange } from '@/data/undo/changes';
import {
  deleteSteps,
  holderOf,
  insertSteps,
  listStepsOf,
  maybeStepForUpdate,
  STEP_FIELDS,
  updateStep,
} from '@/data/prep/steps';
import { maybeBatchDay } from '@/data/prep/batchDays';
import { recount } from '../prep/countPrep';
import { attempt, notFound, refused, STALE, type Doing } from '../useCase';
import type { StepState } from './noteChange';
import { CHANGED_SINCE, isSame } from './sinceThen';
import { nothingPut, type PutOutcome, type Putting } from './subject';

/** Puts steps into another state: what was added goes, what was taken away returns, what was changed is as it was. */
export async function putSteps(
  act: Doing,
  _change: NotedChange,
  puttings: readonly Putting<StepState>[],
): Promise<PutOutcome> {
  const outcome = nothingPut();
  for (const { from, to } of puttings) {
    const step = (from ?? to)!;
    const result = await attempt(() => putStep(act, from, to));
    if (!result.ok)
      outcome.refused.push({ postId: holderOf(step), title: step.title, message: result.refusal.message });
    else if (step.postId === null) outcome.others += 1;
    else outcome.postIds.push(step.postId);
  }
  return outcome;
}

async function putStep(act: Doing, from: StepState | null, to: StepState | null): Promise<void> {
  const { id, brandId, ...holder } = (from ?? to)!;
  const present = await maybeStepForUpdate(act.tx, id);
  if (from === null) {
    if (present || (await listStepsOf(act.tx, [holderOf(holder)])).length >= STEPS_LIMIT) refused(CHANGED_SINCE);
    await insertSteps(act.tx, [{ ...to!, ...(await placeInBatch(act, to!)) }]);
  } else if (!present) refused(notFound('step'));
  else if (to === null) {
    if (!isSame(STEP_FIELDS, present, from)) refused(CHANGED_SINCE);
    await deleteSteps(act.tx, [id]);
  } else {
    const fields = STEP_FIELDS.filter((field) => !isSame([field], from, to));
    if (!isSame(fields, present, from)) refused(CHANGED_SINCE);
    const back = { ...present, ...Object.fromEntries(fields.map((field) => [field, to[field]])) };
    const place = fields.includes('batchId') ? await placeInBatch(act, to) : {};
    if (!(await updateStep(act.tx, { ...back, ...place }))) refused(STALE);
  }
  await recount(act.tx, brandId, [holderOf(holder)], act.now);
}

/** The place of a step in its batch day; none where that was called off or moved since. */
async function placeInBatch(
  act: Doing,
  { batchId, batchPosition, pinned }: StepState,
): Promise<Pick<StepState, 'batchId' | 'batchPosition'>> {
  const batch = batchId ? await maybeBatchDay(act.tx, batchId) : undefined;
  return batch && (pinned === null || batch.day === pinned)
    ? { batchId: batch.id, batchPosition: batchPosition ?? null }
    : { batchId: null, batchPosition: null };
}
