import { getIronSession } from 'iron-session';
import { cookies } from 'next/headers';
import type { Bimlo } from '@/runtime/bimlo';
import { cookieKeyOf } from '@/usecases/signIn/reading';
import { isSecure } from './reach';

/** What the cookie of a browser holds: which sign-in it is. All else is asked of the database at each request. */
interface Kept {
  signInId?: string;
}

const COOKIE = 'bimlo_session';

/** The sealed cookie of the browser that asks. It holds for as long as the sign-in does. */
async function cookieOf({ db }: Pick<Bimlo, 'db'>) {
  return getIronSession<Kept>(await cookies(), {
    password: await cookieKeyOf(db),
    cookieName: COOKIE,
    ttl: 0,
    cookieOptions: { httpOnly: true, sameSite: 'lax', secure: isSecure(), path: '/' },
  });
}

/** The sign-in of the browser that asks; null where it has none, or none that Bimlo sealed. */
export const signInIdOf = async (app: Pick<Bimlo, 'db'>): Promise<string | null> =>
  (await cookieOf(app)).signInId ?? null;

/** Lets the browser that asks have a sign-in. */
export async function keepSignIn(app: Pick<Bimlo, 'db'>, signInId: string): Promise<void> {
  const kept = await cookieOf(app);
  kept.signInId = signInId;
  await kept.save();
}

/** Takes the sign-in of the browser that asks away from it. */
export async function dropSignIn(app: Pick<Bimlo, 'db'>): Promise<void> {
  (await cookieOf(app)).destroy();
}
