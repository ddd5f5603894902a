import { followStretches } from '@/core/pieces/reanchor';
import { READ_AS_IT_LOOKS } from '@/core/reading/howRead';
import { textBeforeTellingApart } from '@/core/reading/readingText';
import { deleteExtracts, listExtracts, listUnsettled, moveExtracts, updateHowRead } from '@/data/extracts/extracts';
import { readText } from '@/data/pool/readText';
import type { Db } from '../useCase';

/**
 * Texts that were brought in before it was kept how each is read are read as Markdown, as they were; what was accepted of them is
 * moved to where its words stand in what is read now. What is left out now has no extracts any more.
 */
export async function settleReadings(db: Db): Promise<void> {
  for (const { id, ...kept } of await listUnsettled(db)) {
    const isTimed = kept.cues.length > 0;
    const how = { ...READ_AS_IT_LOOKS, as: isTimed ? null : ('markdown' as const) };
    const extracts = isTimed ? [] : await listExtracts(db, id);
    const after = extracts.length > 0 ? (await readText({ ...kept, how })).text : '';
    const moved = followStretches(extracts, textBeforeTellingApart(kept.source), after);
    const stays = new Set(moved.map((one) => one.id));
    await db.transaction(async (tx) => {
      await updateHowRead(tx, id, how);
      await moveExtracts(tx, moved);
      await deleteExtracts(
        tx,
        extracts.flatMap((one) => (stays.has(one.id) ? [] : [one.id])),
      );
    });
  }
}
