import './plainYup';
import { couldDo, RIGHTS, type Deed } from '@/core/rights/may';
import type { Refusal } from '@/core/refusal';
import { LostFileError, NativeFailedError } from '@/usecases/media/files';
import { isDiskFull, DISK_FULL, type Work } from '@/usecases/useCase';
import { whyForeign } from './foreign';
import { followCardsOf } from '@/usecases/cards/cards';
import { bimlo, type Bimlo } from '@/runtime/bimlo';
import { log } from '@/runtime/log';
import { REQUEST_KEY_HEADER, SEEN_HEADER } from '@/ui/api';
import { refusal } from './request';
import { whoAsks, whyDrawnForAnother } from './who';

/** What a route is given beside the request: Bimlo, and with whom it acts. */
interface Visit {
  app: Bimlo;
  work: Work;
  /** The sign-in of the browser that asks; null where nobody has to sign in. */
  signInId: string | null;
}

type Context<P> = { params: Promise<P> };
type Route<P, V> = (request: Request, context: Context<P>, visit: V) => Promise<Response>;

/**
 * A route handler as Next calls it, with what has to be allowed for it: null where nobody need be chosen.
 *
 * @internal
 */
export interface Door<P> {
  (request: Request, context: Context<P>): Promise<Response>;
  deed: Deed | null;
}

/** A key of a request: what our pages make, a UUID. */
const KEY = /^[0-9a-f-]{36}$/;

/** A version as an entity tag (RFC 9110, 8.8.3). */
const VERSION = /^"\d{1,9}"$/;

/** What every answer of a route says of itself, unless it says otherwise. */
const ANSWER_HEADERS: Record<string, string> = {
  'content-security-policy': "default-src 'none'; frame-ancestors 'none'",
  'x-content-type-options': 'nosniff',
  'referrer-policy': 'no-referrer',
};

/**
 * The one way into a route: only from our own pages and under our own name, only for somebody who works here and whose role
 * may do that at all (whose brand it is, the use case asks), and whatever breaks is answered as Bimlo's own error.
 */
export function door<P = Record<string, never>>(deed: Deed, route: Route<P, Visit>): Door<P> {
  return Object.assign(
    (request: Request, context: Context<P>) =>
      guarded(request, async () => {
        const app = await bimlo();
        const who = await whoAsks(app);
        if (!who) return refusal(NOBODY);
        const another = whyDrawnForAnother(request, who);
        if (another) return refusal(another);
        if (!couldDo(who.actor.role, deed)) return refusal(notYours(RIGHTS[deed].words));
        const { db, clock, ids, measurePictures } = app;
        const key = request.headers.get(REQUEST_KEY_HEADER);
        const own = key !== null && KEY.test(key) ? { request: { key, parts: 0 } } : {};
        const version = request.headers.get(SEEN_HEADER);
        const seen = version !== null && VERSION.test(version) ? { seen: Number(version.slice(1, -1)) } : {};
        const plain = { db, clock, ids, actorId: who.id };
        return route(request, context, {
          app,
          signInId: who.signInId,
          work: {
            ...plain,
            ...(measurePictures && { measurePictures: measuring(app, plain, measurePictures) }),
            ...seen,
            ...own,
          },
        });
      }),
    { deed },
  );
}

/** Makes pictures of posts ready to be checked: cards that follow words are set anew first. */
const measuring =
  (
    app: Bimlo,
    plain: Pick<Work, 'db' | 'clock' | 'ids' | 'actorId'>,
    measure: NonNullable<Work['measurePictures']>,
  ): NonNullable<Work['measurePictures']> =>
  async (postIds) => {
    await followCardsOf({ ...plain, folder: app.folder.media }, postIds);
    return measure(postIds);
  };

/** A door for which nobody need be chosen. It still opens only from our own pages and under our own name. */
export function openDoor<P = Record<string, never>>(route: Route<P, { app: Bimlo }>): Door<P> {
  return Object.assign(
    (request: Request, context: Context<P>) =>
      guarded(request, async () => route(request, context, { app: await bimlo() })),
    { deed: null },
  );
}

async function guarded(request: Request, answer: () => Promise<Response>): Promise<Response> {
  const foreign = whyForeign(request);
  const response = foreign ? Response.json({ refusal: foreign }, { status: 403 }) : await unbroken(request, answer);
  for (const [name, value] of Object.entries(ANSWER_HEADERS))
    if (!response.headers.has(name)) response.headers.set(name, value);
  return response;
}

async function unbroken(request: Request, answer: () => Promise<Response>): Promise<Response> {
  try {
    return await answer();
  } catch (error) {
    log.error({ err: error, method: request.method, path: new URL(request.url).pathname }, 'a request broke');
    if (isDiskFull(error)) return Response.json({ refusal: FULL }, { status: 507 });
    if (error instanceof LostFileError) return Response.json({ refusal: LOST }, { status: 404 });
    if (error instanceof NativeFailedError) return Response.json({ refusal: TOO_MUCH }, { status: 503 });
    return Response.json({ refusal: BROKEN }, { status: 500 });
  }
}

const NOBODY: Refusal = { code: 'nobody', message: 'You are not signed in (any more). Reload, and sign in.' };
export const BROKEN: Refusal = {
  code: 'broken',
  message: 'Bimlo had an error of its own, so this was not done. Its log says more.',
};
const LOST: Refusal = {
  code: 'lostFile',
  message: 'The file of this picture is not in the media folder any more. Remove it and add it again.',
};
const TOO_MUCH: Refusal = {
  code: 'tooMuchWork',
  message:
    'This picture takes too long to be drawn, or too many are drawn at present. Try again, or use a smaller one.',
};
const FULL: Refusal = { code: 'diskFull', message: `${DISK_FULL}, then try again: nothing was saved.` };
const notYours = (words: string): Refusal => ({
  code: 'notYours',
  message: `Your role does not let you do that (${words}).`,
});
