import type { Instant } from '@/core/time/plan';
import { maybeAlone } from '@/data/signIn/credentials';
import { cookieKey } from '@/data/signIn/keys';
import { listSignIns, type SignIn } from '@/data/signIn/signIns';
import type { Db } from '../useCase';
import type { House } from './house';
import { holdsSince } from './signIn';

export { existsPassword, listPasswordsSet, maybePasswordHash } from '@/data/signIn/credentials';
export { listEntryLinks } from '@/data/signIn/entryLinks';
const keys = new WeakMap<Db, Promise<string>>();

/** What seals the cookies of a house, read once. */
export function cookieKeyOf(db: Db): Promise<string> {
  const known = keys.get(db);
  if (known) return known;
  const key = cookieKey(db).catch((error: unknown) => {
    keys.delete(db);
    throw error;
  });
  keys.set(db, key);
  return key;
}

/** The one person who uses a house where nobody has a password and nobody is invited; undefined where it is not so. */
export const personAlone = ({ db, clock }: Pick<House, 'db' | 'clock'>): Promise<string | undefined> =>
  maybeAlone(db, clock.now());

/** The browsers that somebody is signed in with. */
export const signInsOf = (db: Db, personId: string, now: Instant): Promise<SignIn[]> =>
  listSignIns(db, personId, holdsSince(now));
