import { STEPS_LIMIT } from '@/core/prep/step';
import type { StepItem } from '@/data/calendar/calendarChanges';
import {
  deleteSteps,
  holderOf,
  insertSteps,
  listStepsOf,
  maybeStepForUpdate,
  STEP_FIELDS,
  updateStep,
} from '@/data/prep/steps';
import { recount } from '../prep/countPrep';
import { attempt, notFound, refused, STALE, type Doing } from '../useCase';
import type { ChangeOutcome } from './changePosts';
import { CHANGED_SINCE, isSame } from './sinceThen';

/** Puts steps back as they were before a change: what was added goes, what was taken away returns, what was changed is undone. */
export async function putStepsBack(
  act: Doing,
  items: readonly StepItem[],
): Promise<Pick<ChangeOutcome, 'postIds' | 'refused'> & { pieces: number }> {
  const outcome = { postIds: [] as string[], refused: [] as ChangeOutcome['refused'], pieces: 0 };
  for (const item of items) {
    const step = (item.before ?? item.after)!;
    const result = await attempt(async () => putBack(act, item));
    if (!result.ok)
      outcome.refused.push({ postId: holderOf(step), title: step.title, message: result.refusal.message });
    else if (step.postId === null) outcome.pieces += 1;
    else outcome.postIds.push(step.postId);
  }
  return { ...outcome, postIds: [...new Set(outcome.postIds)] };
}

async function putBack(act: Doing, { before, after }: StepItem): Promise<void> {
  const { id, brandId, ...holder } = (before ?? after)!;
  const present = await maybeStepForUpdate(act.tx, id);
  if (after === null) {
    if (present || (await listStepsOf(act.tx, [holderOf(holder)])).length >= STEPS_LIMIT) refused(CHANGED_SINCE);
    await insertSteps(act.tx, [before!]);
  } else if (!present) refused(notFound('step'));
  else if (before === null) {
    if (!isSame(STEP_FIELDS, present, after)) refused(CHANGED_SINCE);
    await deleteSteps(act.tx, [id]);
  } else {
    const fields = STEP_FIELDS.filter((field) => !isSame([field], before, after));
    if (!isSame(fields, present, after)) refused(CHANGED_SINCE);
    const back = Object.fromEntries(fields.map((field) => [field, before[field]]));
    if (!(await updateStep(act.tx, { ...present, ...back }))) refused(STALE);
  }
  await recount(act.tx, brandId, [holderOf(holder)], act.now);
}
