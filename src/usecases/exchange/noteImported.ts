import { CHANGE_LIMIT, quoted } from '@/core/calendar/change';
import { addItems, makeFinalBeyond } from '@/data/undo/changes';
import { madePosts, noteChange } from '../undo/noteChange';
import { madePieces } from '../undo/rows';
import type { Doing } from '../useCase';

/** By what an import is undone. */
export interface UndoOfImport {
  /** The same for all slices of a file. */
  changeId: string;
  fileName: string;
}

/** Writes down what rows of a file made, so that it is undone as one. Posts that were there and were changed stay as they are. */
export async function noteImported(
  act: Doing,
  brandId: string,
  { changeId, fileName }: UndoOfImport,
  { postIds, pieceIds }: { postIds: readonly string[]; pieceIds: readonly string[] },
): Promise<void> {
  if (postIds.length === 0) return;
  const items = [...madePosts(postIds), ...(await madePieces(act, pieceIds))];
  if (!(await addItems(act.tx, changeId, items)))
    await noteChange(act, { id: changeId, brandId, label: `Imported ${quoted(fileName)}`, items });
  const why = `It brought in more than are changed at once. Pick them in the list to delete them.`;
  await makeFinalBeyond(act.tx, changeId, 2 * CHANGE_LIMIT, why);
}
