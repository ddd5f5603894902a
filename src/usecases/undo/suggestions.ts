import { addSuggestions, deleteSuggestions } from '@/data/pieces/pieces';
import type { Direction, NotedChange } from '@/data/undo/changes';
import type { Doing } from '../useCase';
import { nothingPut, type PutOutcome, type Putting } from './subject';

/** Suggests channels for a piece again once its posts on them are gone, and no longer once they are back. */
export async function putSuggestions(
  act: Doing,
  _change: NotedChange,
  puttings: readonly Putting<readonly string[]>[],
  direction: Direction,
): Promise<PutOutcome> {
  for (const { item } of puttings) {
    if (direction === 'undo') await addSuggestions(act.tx, item.id, item.before ?? []);
    else await deleteSuggestions(act.tx, item.id, item.before ?? []);
  }
  return nothingPut();
}
