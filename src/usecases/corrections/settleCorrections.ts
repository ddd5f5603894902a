import { listPiecesToCompare, noteCompared } from '@/data/corrections/formerTexts';
import type { Db } from '@/data/database/db';
import { maybePiece } from '@/data/pieces/pieces';
import { postsBehind } from './reading';

/** The job that finds the posts which say what their piece no longer says. */
export const SETTLE_CORRECTIONS_JOB = 'settleCorrections';

/** Pieces that one run compares, at most. */
const AT_ONCE = 20;

/**
 * Compares pieces that were corrected with what their posts were made of. A post that says nothing of what was corrected is as good
 * as made of the text as it is now; the others stay marked.
 *
 * @param isStopping whether it shall break off; what is left has its turn in the next run
 * @returns how many pieces were compared
 */
export async function settleCorrections({ db }: { db: Db }, isStopping: () => boolean = () => false): Promise<number> {
  let compared = 0;
  for (const { id, version } of await listPiecesToCompare(db, AT_ONCE)) {
    if (isStopping()) break;
    const piece = await maybePiece(db, id);
    if (!piece || piece.version !== version) continue;
    const behind = await postsBehind(db, piece, { withSetAside: true });
    // What cannot be compared in time stays marked, and is not tried at every run.
    const untouched = behind.ok ? behind.value.filter(({ corrected }) => corrected === null) : [];
    await db.transaction((tx) =>
      noteCompared(
        tx,
        { id, version },
        untouched.map(({ post }) => ({ id: post.id, version: post.version })),
      ),
    );
    compared++;
  }
  return compared;
}
