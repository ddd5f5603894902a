import { isDeepStrictEqual } from 'node:util';
import { readSourceState, writeSourceState, type SourceState } from '@/data/extracts/sourceState';
import { maybePiece } from '@/data/pieces/pieces';
import type { ChangeItem, Direction, NotedChange } from '@/data/undo/changes';
import { mustMay } from '../rights/mustMay';
import type { Doing } from '../useCase';
import { CHANGED_SINCE } from './sinceThen';
import { nothingPut, type PutOutcome, type Putting } from './subject';

/** Replaces the text of a piece, and gives what it changed of it: nothing where it is the same. */
export async function replacingSource(
  act: Doing,
  pieceId: string,
  write: () => Promise<unknown>,
): Promise<ChangeItem<SourceState>[]> {
  const before = await readSourceState(act.tx, pieceId);
  await write();
  const after = await readSourceState(act.tx, pieceId);
  return isDeepStrictEqual(before, after) ? [] : [{ subject: 'sourceText', id: pieceId, before, after }];
}

/** Gives pieces the text that they had, with its times and extracts, where nobody changed any of it since. */
export async function putSourceTexts(
  act: Doing,
  { brandId }: NotedChange,
  puttings: readonly Putting<SourceState>[],
  _direction: Direction,
): Promise<PutOutcome> {
  const outcome = nothingPut();
  await mustMay(act, 'changePieces', brandId);
  for (const { item, from, to } of puttings) {
    const present = await readSourceState(act.tx, item.id);
    if (isDeepStrictEqual(present, to)) continue;
    if (isDeepStrictEqual(present, from)) {
      await writeSourceState(act.tx, item.id, present, to!);
      outcome.others += 1;
    } else {
      const piece = await maybePiece(act.tx, item.id);
      const title = piece ? `the text of “${piece.title}”` : 'the text of a piece';
      outcome.refused.push({ postId: null, title, message: CHANGED_SINCE.message });
    }
  }
  return outcome;
}
