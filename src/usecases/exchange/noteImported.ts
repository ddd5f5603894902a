import { CHANGE_LIMIT, quoted } from '@/core/calendar/change';
import { listStepsOf, STEP_FIELDS, type Step } from '@/data/prep/steps';
import { addItems, makeFinalBeyond, type ChangeItem } from '@/data/undo/changes';
import type { CheckedWrite } from '../posts/checkWrites';
import { changedPost, changedStep, noteChange } from '../undo/noteChange';
import { changedPictures } from '../undo/pictures';
import { isSame } from '../undo/sinceThen';
import type { Doing } from '../useCase';

/** By what an import is undone. */
export interface UndoOfImport {
  /** The same for all slices of a file. */
  changeId: string;
  fileName: string;
}

/** Writes down what rows of a file made and changed, so that it is undone as one. */
export async function noteImported(
  act: Doing,
  brandId: string,
  { changeId, fileName }: UndoOfImport,
  items: readonly ChangeItem[],
): Promise<void> {
  if (items.length === 0) return;
  if (!(await addItems(act.tx, changeId, items)))
    await noteChange(act, { id: changeId, brandId, label: `Imported ${quoted(fileName)}`, items });
  const why = `It brought in more than are changed at once. What is too much you find in the list.`;
  await makeFinalBeyond(act.tx, changeId, 2 * CHANGE_LIMIT, why);
}

/** What a write changed of a post: its words and plan, and its pictures, which come back with the parts that show them. */
export function changedByRow({ write: { open, change }, after, pictures }: CheckedWrite): ChangeItem[] {
  if (change.pictures === undefined) return [changedPost(open.post, after)];
  const ofPictures = changedPictures(open, { pictures, parts: after.parts });
  return [changedPost({ ...open.post, parts: after.parts }, after), ofPictures];
}

/** What became of the steps of posts since they were read. */
export async function changedSteps(
  act: Doing,
  postIds: readonly string[],
  before: readonly Step[],
): Promise<ChangeItem[]> {
  if (postIds.length === 0) return [];
  const was = new Map(before.map((step) => [step.id, step]));
  const is = new Map((await listStepsOf(act.tx, postIds)).map((step) => [step.id, step]));
  return [...new Set([...was.keys(), ...is.keys()])].flatMap((id) => {
    const [from, to] = [was.get(id) ?? null, is.get(id) ?? null];
    return from && to && isSame(STEP_FIELDS, from, to) ? [] : [changedStep(from, to)];
  });
}
