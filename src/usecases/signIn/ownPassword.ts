import { refuse, type Result } from '@/core/refusal';
import { asKept, readPassword } from '@/core/signIn/password';
import { maybePerson } from '@/data/people/people';
import { writeAudit } from '@/data/signIn/audit';
import { maybePasswordHash, savePasswordHash } from '@/data/signIn/credentials';
import { hashPassword, isPassword } from '@/data/signIn/passwords';
import { deleteSignInsOf } from '@/data/signIn/signIns';
import { mustMay } from '../rights/mustMay';
import { doing, type Work } from '../useCase';
import type { From } from './house';
import { beginSignIn } from './signIn';
import { noteRight, takeTry } from './tries';

/** A password that somebody wants to have. */
interface Wanted {
  /** The browser it is done in; null where nobody has to sign in yet. */
  signInId: string | null;
  /** The password they have; empty where they have none. */
  present: string;
  password: string;
  /** Wrong ones slow down as they do when signing in. */
  from: From;
}

/**
 * Sets the password of whoever acts. Who has one says it first, and is signed out everywhere but here.
 *
 * @returns the sign-in of this browser, a new one where it had none
 */
export async function changeOwnPassword(
  work: Work,
  { signInId, present, password, from }: Wanted,
): Promise<Result<{ signInId: string }>> {
  const { db, actorId } = work;
  const [person, kept] = await Promise.all([maybePerson(db, actorId), maybePasswordHash(db, actorId)]);
  const read = readPassword(password, person ? [person.name, person.slug] : []);
  if (!read.ok) return read;
  if (kept !== null) {
    const tried = { personId: actorId, typedName: '', address: from.address };
    const may = await takeTry(work, tried);
    if (!may.ok) return { ok: false, refusal: { ...may.refusal, field: 'present' } };
    if (!(await isPassword(kept, asKept(present))))
      return refuse('wrongPassword', 'That is not your password.', 'present');
    await noteRight(db, tried);
  }
  const hash = await hashPassword(read.value);
  return doing(work, async (act) => {
    await mustMay(act, 'lookAtSelf', null);
    await savePasswordHash(act.tx, actorId, hash, act.now);
    await deleteSignInsOf(act.tx, actorId, signInId);
    await writeAudit(act.tx, { at: act.now, kind: 'passwordChanged', actorId, personId: actorId });
    return signInId === null ? beginSignIn(act.tx, work, actorId, from, 'signedIn') : { signInId };
  });
}
