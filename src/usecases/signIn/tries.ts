import { createHash } from 'node:crypto';
import { FORGOTTEN_AFTER_MS, waitAfterMs, waitWords, WRONG_AT_ONCE } from '@/core/signIn/slowDown';
import { addMs, msBetween } from '@/core/time/plan';
import { deleteWrong, lockWrong, saveWrong, takeOffWrong } from '@/data/signIn/wrongPasswords';
import { refuse, type Result } from '@/core/refusal';
import type { House } from './house';

/** Whose password is tried: somebody here, or a name that nobody has. */
interface Tried {
  personId: string | null;
  typedName: string;
  address: string;
}

/** What is not kept as it was typed, since people type a password there by mistake. */
const bySign = (text: string) => createHash('sha256').update(text.trim().toLowerCase()).digest('hex').slice(0, 32);

const subjectsOf = ({ personId, typedName, address }: Tried) => ({
  name: personId === null ? `name:${bySign(typedName)}` : `person:${personId}`,
  address: `address:${address}`,
});

/**
 * Lets a password be tried, or refuses with `tooManyTries` and how long is to be waited. A try counts as wrong until it is told to
 * have been right, so that many at once are counted too.
 */
export async function takeTry({ db, clock }: Pick<House, 'db' | 'clock'>, tried: Tried): Promise<Result<true>> {
  const subjects = subjectsOf(tried);
  const now = clock.now();
  const waitMs = await db.transaction(async (tx) => {
    const counts = (await lockWrong(tx, Object.values(subjects), now)).map((one) => ({
      ...one,
      wrong: addMs(one.lastAt, FORGOTTEN_AFTER_MS) < now ? 0 : one.wrong,
    }));
    const waits = counts.map(({ subject, wrong, lastAt }) => {
      const atOnce = subject === subjects.name ? WRONG_AT_ONCE.name : WRONG_AT_ONCE.address;
      return waitAfterMs(wrong, atOnce) - Math.max(0, msBetween(lastAt, now));
    });
    const longest = Math.max(0, ...waits);
    if (longest === 0) for (const one of counts) await saveWrong(tx, { ...one, wrong: one.wrong + 1, lastAt: now });
    return longest;
  });
  if (waitMs === 0) return { ok: true, value: true };
  return refuse('tooManyTries', `That was wrong too often. Try again in ${waitWords(waitMs)}.`, 'password');
}

/** Notes that the last try was right: nothing is held against that name any more. */
export async function noteRight(db: House['db'], tried: Tried): Promise<void> {
  const { name, address } = subjectsOf(tried);
  await deleteWrong(db, name);
  await takeOffWrong(db, address);
}
