import { listStepsOf, STEP_FIELDS } from '@/data/prep/steps';
import type { ChangeItem } from '@/data/undo/changes';
import type { Doing } from '../useCase';
import { changedStep, noteChange } from './noteChange';
import { watching, type ThingName } from './rows';
import { isSame } from './sinceThen';

/** What somebody is about to change. */
interface Watched {
  brandId: string;
  /** How it is told that it was done: “Changed “Rings””. */
  label: string;
  /** The things that may be changed. */
  things?: readonly { name: ThingName; id: string }[];
  /** The post or piece whose steps may be. */
  stepsOf?: string;
  /** Why it cannot be undone, which is told to whoever tries. */
  final?: string | null;
}

/**
 * Does something so that the person can undo it. What changed nothing is not written down.
 *
 * @param besides what else it changed, told by what it came to
 */
export async function undoably<T>(
  act: Doing,
  { brandId, label, things = [], stepsOf, final = null }: Watched,
  write: () => Promise<T>,
  besides: (value: T) => readonly ChangeItem[] = () => [],
): Promise<T> {
  if (final !== null) {
    const value = await write();
    await noteChange(act, { brandId, label, items: [], final });
    return value;
  }
  const stepsBefore = await stepsById(act, stepsOf);
  let value!: T;
  const items: ChangeItem[] = await watching(act, things, async () => (value = await write()));
  items.push(...besides(value));
  const stepsAfter = await stepsById(act, stepsOf);
  for (const id of new Set([...stepsBefore.keys(), ...stepsAfter.keys()])) {
    const [before, after] = [stepsBefore.get(id) ?? null, stepsAfter.get(id) ?? null];
    if (!before || !after || !isSame(STEP_FIELDS, before, after)) items.push(changedStep(before, after));
  }
  if (items.length > 0) await noteChange(act, { brandId, label, items });
  return value;
}

const stepsById = async (act: Doing, holderId: string | undefined) =>
  new Map((holderId === undefined ? [] : await listStepsOf(act.tx, [holderId])).map((step) => [step.id, step]));
