import { refuse, type Result } from '@/core/refusal';
import { asKept } from '@/core/signIn/password';
import { slugOf } from '@/core/text/slug';
import { addMs, type Instant } from '@/core/time/plan';
import type { Queryable } from '@/data/database/db';
import { writeAudit } from '@/data/signIn/audit';
import { maybeCandidate } from '@/data/signIn/credentials';
import { isPassword } from '@/data/signIn/passwords';
import { deleteSignIn, deleteSignInsOf, insertSignIn, maybeSignedIn, noteUse } from '@/data/signIn/signIns';
import { keptFrom, type From, type House } from './house';
import { noteRight, takeTry } from './tries';

const DAY_MS = 24 * 60 * 60_000;

/** How long a sign-in holds that is not used, in milliseconds. */
const UNUSED_HOLDS_MS = 30 * DAY_MS;
/** How often it is noted that a sign-in is used, in milliseconds. */
const NOTED_EVERY_MS = 60 * 60_000;

/** The earliest last use of a sign-in that still holds. */
export const holdsSince = (now: Instant): Instant => addMs(now, -UNUSED_HOLDS_MS);

/** A browser that is signed in. */
export interface SignedIn {
  signInId: string;
  personId: string;
}

/**
 * Signs somebody in by name and password. Known names and unknown ones are refused alike: with `wrongPassword`, or after too
 * many with `tooManyTries`.
 */
export async function signIn(
  house: House,
  { name, password }: { name: string; password: string },
  from: From,
): Promise<Result<SignedIn>> {
  const { db, clock } = house;
  const { address, agent } = keptFrom(from);
  const candidate = await maybeCandidate(db, name.trim(), slugOf(name));
  const personId = candidate?.personId ?? null;
  const tried = { personId, typedName: name, address };
  const may = await takeTry(house, tried);
  if (!may.ok) return may;
  const isRight = await isPassword(candidate?.passwordHash ?? null, asKept(password));
  const now = clock.now();
  if (!isRight || personId === null) {
    await writeAudit(db, { at: now, kind: 'notSignedIn', personId, address });
    return refuse('wrongPassword', 'That name and that password do not belong together.', 'password');
  }
  await noteRight(db, tried);
  return db.transaction(async (tx) => ({
    ok: true,
    value: await beginSignIn(tx, house, personId, { address, agent }, 'signedIn'),
  }));
}

/** Signs somebody in of whom it is known who they are. */
export async function beginSignIn(
  tx: Queryable,
  { clock, ids }: Pick<House, 'clock' | 'ids'>,
  personId: string,
  from: From,
  kind: 'signedIn' | 'joined' | 'begun',
): Promise<SignedIn> {
  const now = clock.now();
  const { address, agent } = keptFrom(from);
  const signInId = ids();
  await insertSignIn(tx, { id: signInId, personId, begunAt: now, address, agent });
  await writeAudit(tx, { at: now, kind, actorId: personId, address });
  return { signInId, personId };
}

/** Who is signed in with that, as they are now; notes that it is used. Undefined where it does not hold (any more). */
export async function whoIsSignedIn({ db, clock }: Pick<House, 'db' | 'clock'>, signInId: string) {
  const now = clock.now();
  const found = await maybeSignedIn(db, signInId, holdsSince(now));
  if (found && addMs(found.lastAt, NOTED_EVERY_MS) < now) await noteUse(db, signInId, now);
  return found;
}

/** Signs somebody out: in this browser, or in all they are signed in with. */
export async function signOut(
  { db, clock }: Pick<House, 'db' | 'clock'>,
  { signInId, personId }: SignedIn,
  isEverywhere: boolean,
): Promise<void> {
  await db.transaction(async (tx) => {
    if (isEverywhere) await deleteSignInsOf(tx, personId);
    else await deleteSignIn(tx, signInId);
    const kind = isEverywhere ? 'signedOutEverywhere' : 'signedOut';
    await writeAudit(tx, { at: clock.now(), kind, actorId: personId, personId });
  });
}
