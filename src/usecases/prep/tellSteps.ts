import { groupBy } from '@/core/group';
import { oneBrand } from '@/data/brands/brands';
import { deleteSteps, insertSteps, orderSteps, updateStep, type Step } from '@/data/prep/steps';
import { refused, STALE, type Doing } from '../useCase';
import { recount } from './countPrep';
import { asTold, type ToldStep } from './givePrep';

/**
 * Gives a post the steps that it is told to have, instead of those it has. A step is known by its title, the second of a title
 * by being the second; those that are told no more go.
 */
export async function tellSteps(
  act: Doing,
  { brandId, postId }: { brandId: string; postId: string },
  present: readonly Step[],
  told: readonly ToldStep[],
): Promise<void> {
  const { zone } = await oneBrand(act.tx, brandId);
  const left = groupBy(present, ({ title }) => title);
  const ids: string[] = [];
  const fresh: Omit<Step, 'version'>[] = [];
  for (const [index, line] of told.entries()) {
    const step = left.get(line.title)?.shift();
    const said = { ...line, ...asTold(line, zone), position: index + 1 };
    const id = step?.id ?? act.ids();
    ids.push(id);
    if (!step) fresh.push({ ...said, id, brandId, postId, pieceId: null, day: null, plannedOn: null });
    else if (!(await updateStep(act.tx, { ...step, ...said }))) refused(STALE);
  }
  await deleteSteps(
    act.tx,
    [...left.values()].flat().map(({ id }) => id),
  );
  if (fresh.length > 0) await insertSteps(act.tx, fresh);
  await orderSteps(act.tx, postId, ids);
  await recount(act.tx, brandId, [postId], act.now);
}
