import { addItems, maybeNextChange, relabel, type ChangeItem, type NotedChange } from '@/data/undo/changes';
import type { Doing } from '../useCase';
import { noteChange } from './noteChange';
import { makesPiece } from './rows';

/**
 * Writes down what a person did with a piece that they made for it just before: both are undone as one, unless they did something else
 * between the two.
 *
 * @returns its id to undo it by
 */
export async function noteWithMade(
  act: Doing,
  pieceId: string,
  { brandId, label, items }: Pick<NotedChange, 'brandId' | 'label'> & { items: readonly ChangeItem[] },
): Promise<string | null> {
  const last = await maybeNextChange(act.tx, brandId, act.actorId, 'undo');
  if (!last?.items.some((item) => makesPiece(item, pieceId))) return noteChange(act, { brandId, label, items });
  await addItems(act.tx, last.id, items, act.now);
  await relabel(act.tx, last.id, label);
  return last.id;
}
