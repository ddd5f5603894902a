import { followStretches, type Same } from '@/core/pieces/reanchor';
import {
  deleteExtracts,
  listExtracts,
  maybeSource,
  moveExtracts,
  updateCues,
  updateHowRead,
  type KeptSource,
} from '@/data/extracts/extracts';
import { findSame, readText } from '@/data/pool/readText';
import { refused, STALE, type Acting, type Db } from '../useCase';
import { readingOfPiece } from './keptReading';

/** What the times and extracts of a piece follow its text by, worked out before anything is written. */
interface Following {
  before: KeptSource;
  after: KeptSource;
  /** The texts as they are read, and what is the same in them. */
  read: { before: string; after: string; same: readonly Same[] };
}

/**
 * Works out how the times and extracts of a piece follow its text, which is about to be corrected or brought in anew. It reads and
 * compares long texts on a thread, so it is done before the transaction.
 *
 * @param change with times of its own where it was brought in; without, those of the text before follow
 * @returns null where there is nothing to follow
 */
export async function prepareFollowing(
  db: Db,
  pieceId: string,
  change: Pick<KeptSource, 'source'> & Partial<Omit<KeptSource, 'source'>>,
): Promise<Following | null> {
  const before = await maybeSource(db, pieceId);
  if (!before || (before.source === change.source && !change.cues && !change.how)) return null;
  const hasExtracts = (await listExtracts(db, pieceId)).length > 0;
  if (!hasExtracts && before.cues.length === 0 && (change.cues ?? []).length === 0) return null;
  const from = (await readingOfPiece(db, pieceId, before)).text;
  const [sameTimes = []] = change.cues || before.cues.length === 0 ? [] : await findSame([[from, change.source]]);
  const cues = change.cues ?? followStretches(before.cues, from, change.source, sameTimes);
  const isWordTimed = (change.isWordTimed ?? before.isWordTimed) && cues.length > 0;
  const how = change.how ?? before.how;
  const after = { source: change.source, cues, isWordTimed, how };
  const to = (await readText(after)).text;
  const [same = []] = hasExtracts ? await findSame([[from, to]]) : [];
  return { before, after, read: { before: from, after: to, same } };
}

/**
 * Lets the times and extracts of a piece follow its text: what stands where it stood, or elsewhere, is kept; an extract whose words
 * are gone is gone. The use case ends where somebody changed the text since it was worked out.
 *
 * @param now the text as it stands before the change, in the same transaction
 */
export async function follow(
  act: Pick<Acting, 'tx'>,
  pieceId: string,
  now: KeptSource,
  following: Following | null,
): Promise<void> {
  const extracts = await listExtracts(act.tx, pieceId);
  if (!following) {
    if (extracts.length > 0 || now.cues.length > 0) refused(STALE);
    return;
  }
  if (now.source !== following.before.source) refused(STALE);
  const { after, read } = following;
  await updateCues(act.tx, pieceId, after.cues, after.isWordTimed);
  await updateHowRead(act.tx, pieceId, after.how);
  const kept = followStretches(extracts, read.before, read.after, read.same);
  const ids = new Set(kept.map(({ id }) => id));
  await moveExtracts(act.tx, kept);
  await deleteExtracts(
    act.tx,
    extracts.filter(({ id }) => !ids.has(id)).map(({ id }) => id),
  );
}
