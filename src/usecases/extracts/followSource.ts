import { readingOf } from '@/core/pieces/readSource';
import { followStretches } from '@/core/pieces/reanchor';
import { deleteExtracts, listExtracts, moveExtracts, updateCues, type KeptSource } from '@/data/extracts/extracts';
import type { Acting } from '../useCase';

/**
 * Lets the times and extracts of a piece follow its text, which was corrected or brought in anew: what stands where it stood, or
 * elsewhere, is kept; an extract whose words are gone is gone.
 *
 * @param after with times of its own where it was brought in; those of the text before otherwise, which follow
 */
export async function followSource(
  act: Pick<Acting, 'tx'>,
  pieceId: string,
  before: KeptSource,
  after: KeptSource,
): Promise<void> {
  const extracts = await listExtracts(act.tx, pieceId);
  const hasOwnTimes = after.cues !== before.cues;
  if (extracts.length === 0 && before.cues.length === 0 && after.cues.length === 0) return;
  const from = readingOf(before).text;
  const cues = hasOwnTimes ? after.cues : followStretches(before.cues, from, after.source);
  const to = readingOf({ ...after, cues }).text;
  await updateCues(act.tx, pieceId, cues, after.isWordTimed && cues.length > 0);
  const kept = followStretches(extracts, from, to);
  const ids = new Set(kept.map(({ id }) => id));
  await moveExtracts(act.tx, kept);
  await deleteExtracts(
    act.tx,
    extracts.filter(({ id }) => !ids.has(id)).map(({ id }) => id),
  );
}
