import { cookies } from 'next/headers';
import type { Refusal } from '@/core/refusal';
import type { Actor } from '@/core/rights/may';
import type { Bimlo } from '@/runtime/bimlo';
import { maybeActor, maybePersonBySlug } from '@/usecases/people/reading';
import { personAlone } from '@/usecases/signIn/reading';
import { whoIsSignedIn } from '@/usecases/signIn/signIn';
import { PERSON_HEADER } from '@/ui/api';
import { isOnlyHere } from './reach';
import { isId } from './request';
import { signInIdOf } from './session';

type App = Pick<Bimlo, 'db' | 'clock'>;

/** Somebody who asks for something. */
interface Who {
  id: string;
  actor: Actor;
  /** The sign-in they ask with; null where nobody has to sign in. */
  signInId: string | null;
}

/** Whether this is a demo, in which one chooses who one is (`BIMLO_DEMO_PERSON`, a slug: who one is until then). */
export const isDemo = (): boolean => Boolean(process.env.BIMLO_DEMO_PERSON);

/**
 * Who asks: whoever is signed in, as they are now. Nobody has to sign in who uses a Bimlo alone that no other machine reaches,
 * and has set no password; and in a demo it is whoever was chosen.
 */
export async function whoAsks(app: App): Promise<Who | null> {
  if (isDemo()) return chosen(app);
  const signInId = await signInIdOf(app);
  const found = signInId === null ? undefined : await whoIsSignedIn(app, signInId);
  if (found) return { id: found.personId, actor: found.actor, signInId };
  return isOnlyHere() ? named(app, await personAlone(app)) : null;
}

/**
 * Why nothing is done for a page that was drawn for somebody else than who asks now; null where it was drawn for them, or by none of our
 * pages.
 */
export function whyDrawnForAnother(request: Request, who: Who): Refusal | null {
  const drawnFor = request.headers.get(PERSON_HEADER);
  return drawnFor && drawnFor !== who.id ? SOMEBODY_ELSE : null;
}

const SOMEBODY_ELSE: Refusal = {
  code: 'somebodyElse',
  message: 'Somebody else has signed in in this browser since. Reload, and sign in as yourself to go on.',
};

/** The cookie of a demo that says who one is. */
export const PERSON_COOKIE = 'bimlo_person';

/** How that cookie is kept: for a year, for our own pages only. */
export const PERSON_COOKIE_OPTIONS = { httpOnly: true, sameSite: 'strict', path: '/', maxAge: 31_536_000 } as const;

async function chosen(app: App): Promise<Who | null> {
  const id = (await cookies()).get(PERSON_COOKIE)?.value ?? '';
  return named(app, isId(id) ? id : (await maybePersonBySlug(app.db, process.env.BIMLO_DEMO_PERSON!))?.id);
}

async function named({ db }: App, id: string | undefined): Promise<Who | null> {
  const actor = id === undefined ? undefined : await maybeActor(db, id);
  return id !== undefined && actor ? { id, actor, signInId: null } : null;
}
