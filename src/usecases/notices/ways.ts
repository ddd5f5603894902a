import { readMailAddress, type Ways } from '@/core/notices/ways';
import type { Result } from '@/core/refusal';
import { lastMailProblem } from '@/data/notices/notices';
import { listWays, updateWays } from '@/data/notices/ways';
import { doing, must, refused, type Db, type Work } from '../useCase';

/** How somebody is told beside on the page. */
export async function loadWays(db: Db, personId: string): Promise<Ways> {
  const [{ mailAddress, quiet } = { mailAddress: '', quiet: null }] = await listWays(db, [personId]);
  return { mailAddress, quiet };
}

/** Why the last mail to somebody was not taken; null where all is well. */
export const mailTrouble = (db: Db, personId: string): Promise<string | null> => lastMailProblem(db, personId);

/** Says how one is told oneself. */
export function setWays(work: Work, ways: Ways): Promise<Result<true>> {
  return doing(work, async ({ tx, actorId }) => {
    const mailAddress = must(readMailAddress(ways.mailAddress));
    if (ways.quiet?.from === ways.quiet?.to && ways.quiet !== null)
      refused({ code: 'badQuiet', field: 'quiet', message: 'Quiet hours end at another time than they begin.' });
    await updateWays(tx, actorId, { mailAddress, quiet: ways.quiet });
    return true as const;
  });
}
