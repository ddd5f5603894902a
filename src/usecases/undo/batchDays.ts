import { insertBatchDay, maybeBatchDay, updateBatchDay } from '@/data/prep/batchDays';
import type { NotedChange } from '@/data/undo/changes';
import { callOff, fillBatch, stateOfBatch, type BatchState } from '../prep/batchDays';
import { mustMay } from '../rights/mustMay';
import { attempt, refused, type Doing } from '../useCase';
import { CHANGED_SINCE, isSame } from './sinceThen';
import { nothingPut, type PutOutcome, type Putting } from './subject';

/** Puts batch days into another state, with their steps. */
export async function putBatchDays(
  act: Doing,
  { brandId }: NotedChange,
  puttings: readonly Putting<BatchState>[],
): Promise<PutOutcome> {
  const outcome = nothingPut();
  await mustMay(act, 'planBatchDays', brandId);
  // What loses steps goes before what gets them.
  const gains = ({ from, to }: Putting<BatchState>) => (to?.stepIds.length ?? 0) - (from?.stepIds.length ?? 0);
  for (const { item, from, to } of [...puttings].sort((one, other) => gains(one) - gains(other))) {
    const result = await attempt(async () => {
      const present = await stateOfBatch(act, item.id);
      const isAsLeft = present && from ? isSame(compared(from), present, from) : present === from;
      if (!isAsLeft) refused(CHANGED_SINCE);
      if (to === null) return callOff(act, from!);
      const { stepIds, places, ...batch } = to;
      if (from === null) await insertBatchDay(act.tx, { ...batch, createdBy: act.actorId });
      else await updateBatchDay(act.tx, { ...batch, version: (await maybeBatchDay(act.tx, item.id))!.version });
      await fillBatch(act, batch, stepIds, places);
    });
    if (result.ok) outcome.others += 1;
    else outcome.refused.push({ postId: null, title: (from ?? to)!.name, message: result.refusal.message });
  }
  return outcome;
}

/** What is compared of a batch day: its steps by their order, not by the places that say it. */
const compared = (state: BatchState) =>
  (Object.keys(state) as (keyof BatchState)[]).filter((name) => name !== 'places');
