import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Bimlo } from '@/runtime/bimlo';
import { cookieJar } from '@/app/server/testHeaders';
import { PERSON_COOKIE } from '@/app/server/who';
import { SEEN_HEADER } from '@/ui/api';
import { fakeNetwork, makeWorld, type TestWorld } from '@/usecases/testWorld';

/** A test world that route handlers find as their Bimlo. */
export interface TestApp extends TestWorld {
  /** Where its files are. */
  media: string;
  /** How often the delivery worker was told to look. */
  looks: () => number;
  /** Whose cookie the next requests carry; null for nobody's. */
  actAs(personId: string | null): void;
}

const PLACE = Symbol.for('bimlo');

/** Makes a world and puts it where `bimlo()` looks. */
export async function makeApp(): Promise<TestApp> {
  const world = await makeWorld();
  const media = await mkdtemp(join(tmpdir(), 'bimlo-app-'));
  let looks = 0;
  const app: Pick<Bimlo, 'db' | 'clock' | 'ids' | 'network' | 'networkUrl'> & {
    folder: { media: string };
    worker: object;
    jobs: object;
  } = {
    ...world.work,
    folder: { media },
    worker: { look: async () => void looks++ },
    jobs: { runSoon: async () => undefined },
    network: fakeNetwork(),
    networkUrl: 'http://127.0.0.1:9',
  };
  const shared = globalThis as { [PLACE]?: Promise<unknown> };
  shared[PLACE] = Promise.resolve(app);
  // As in a demo, whoever a cookie names is who asks; what the demo shows without one is nobody here.
  process.env.BIMLO_DEMO_PERSON = 'nobody-here';
  const actAs = (personId: string | null) => {
    cookieJar.clear();
    if (personId !== null) cookieJar.set(PERSON_COOKIE, personId);
  };
  actAs(world.work.actorId);
  return {
    ...world,
    media,
    looks: () => looks,
    actAs,
    close: async () => {
      delete shared[PLACE];
      delete process.env.BIMLO_DEMO_PERSON;
      cookieJar.clear();
      await rm(media, { recursive: true });
      await world.close();
    },
  };
}

/** What a route answered. */
interface Answered<T> {
  status: number;
  body: T;
}

/** A route handler, whatever its address holds. */
type Handler = (request: Request, context: { params: Promise<never> }) => Promise<Response>;

const HERE = 'http://127.0.0.1:4310';

/** Sends a request to a route as one of our own pages would. */
export async function send(
  handler: Handler,
  given: { body?: BodyInit; params?: Record<string, string>; query?: string; headers?: Record<string, string> } = {},
): Promise<Response> {
  const request = new Request(`${HERE}/api?${given.query ?? ''}`, {
    method: given.body === undefined ? 'GET' : 'POST',
    ...(given.body === undefined ? {} : { body: given.body, duplex: 'half' }),
    headers: { host: '127.0.0.1:4310', origin: HERE, ...given.headers },
  } as RequestInit);
  return handler(request, { params: Promise.resolve((given.params ?? {}) as never) });
}

/** Asks a route with a JSON body, or none, and reads the JSON it answers with. */
export async function ask<T = { refusal?: { code: string; field?: string; message: string } }>(
  handler: Handler,
  given: {
    body?: unknown;
    params?: Record<string, string>;
    query?: string;
    /** The version of the setting it changes; null where it says none. */
    seen?: number | null;
  } = {},
): Promise<Answered<T>> {
  const response = await send(handler, {
    ...given,
    body: given.body === undefined ? undefined : JSON.stringify(given.body),
    headers: given.seen === null ? {} : { [SEEN_HEADER]: `"${given.seen ?? 0}"` },
  });
  return { status: response.status, body: (await response.json()) as T };
}

/** The code and field of a refusal. */
export const refusalIn = ({ body }: Answered<{ refusal?: { code: string; field?: string } }>) =>
  body.refusal && [body.refusal.code, body.refusal.field];
