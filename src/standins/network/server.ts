import { isDeepStrictEqual } from 'node:util';
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import type { Parcel } from '@/core/delivery/network';
import { drawFault, readFaults, type Faults } from './faults';
import { lookInto } from './lookInto';
import { whyRefused } from './rules';
import type { NetworkStore } from './store';

/** Bytes the networks take in one request. */
const BODY_LIMIT = 40_000_000;
/** Networks that cannot take back what they took. */
const TAKES_NOTHING_DOWN = new Set(['lettermill']);
/** Posts of a network that are listed at once, the newest. */
const LISTED = 60;

/** What the server of the made-up networks needs. */
interface NetworkServerOptions {
  store: NetworkStore;
  faults: Faults;
  /** Where the networks' clock stands until it is moved; absent where it runs. */
  frozenAt?: string;
  /** Said at `GET /`, so that a starter can tell whose networks these are. */
  storeFolder: string;
  onStop: () => void;
}

/**
 * The made-up networks' own HTTP interface:
 *
 *     GET  /                                    who this is
 *     PUT  /pictures/:sha256                    bytes
 *     GET  /pictures/:sha256
 *     POST /networks/:network/posts             Idempotency-Key, a parcel as JSON -> 201 {id}, 409 another
 *                                               parcel has that key, 422 refused, 503 try later
 *     GET  /networks/:network/posts[?key=…]     what it holds, newest first; with a key 200 or 404
 *     DELETE /networks/:network/posts?key=…     takes it down: 200, 404 not here, 405 this network takes nothing down
 *     GET  /networks/:network/held?account=…&house=…&since=… (or &post=…)    what an account took, oldest first
 *     GET  /networks/:network/posts/:id
 *     GET  /counts                              accepted posts by network; `calls` and `refused` by key
 *     PUT  /faults                              any of the settings of `Faults`
 *     PUT  /clock                               {now}, where the clock stands still
 *     POST /stop
 */
export function createNetworkServer(options: NetworkServerOptions): Server {
  const { store } = options;
  let faults = options.faults;
  let now = options.frozenAt;
  const calls = new Map<string, number>();
  const refusedKeys = new Set<string>();

  async function publish(network: string, request: IncomingMessage, response: ServerResponse): Promise<void> {
    const key = String(request.headers['idempotency-key'] ?? '');
    if (key === '') return answer(response, 400, { words: 'Idempotency-Key missing' });
    const parcel = JSON.parse((await readBody(request)).toString('utf8')) as Omit<Parcel, 'words'>;
    const call = (calls.get(key) ?? 0) + 1;
    calls.set(key, call);
    if (faults.slowMs > 0) await new Promise((resolve) => setTimeout(resolve, faults.slowMs));
    const known = store.find(network, key);
    if (known)
      return isDeepStrictEqual(known.parcel, parcel)
        ? answer(response, 201, { id: known.id })
        : answer(response, 409, { id: known.id, words: 'another post was taken under this key' });
    const fault = drawFault(faults, key, call);
    if (fault === 'timeOutBefore') return;
    if (fault === 'tryLater') return answer(response, 503, { words: 'busy, try later' });
    const words = fault === 'refuse' ? 'this account may not post that' : await whyNotTaken({ ...parcel, network });
    if (words !== null) {
      refusedKeys.add(key);
      return answer(response, 422, { words });
    }
    const said = (name: string) => request.headers[name]?.toString();
    const from = { house: said('x-house'), postId: said('x-post') };
    const { id } = await store.accept({ network, key, acceptedAt: now ?? new Date().toISOString(), parcel, ...from });
    if (fault !== 'timeOutAfter') answer(response, 201, { id });
  }

  /** What is wrong with a parcel, its pictures looked into as they arrived; null when it is taken. */
  async function whyNotTaken(parcel: Omit<Parcel, 'words'>): Promise<string | null> {
    const lacking = parcel.pictures.find((picture) => !store.hasPicture(picture.sha256));
    if (lacking) return `picture ${lacking.fileName} never arrived`;
    const looked = await Promise.all(parcel.pictures.map((picture) => lookInto(store.picturePath(picture.sha256))));
    const broken = looked.findIndex((measures) => measures === null);
    if (broken >= 0) return `picture ${parcel.pictures[broken]!.fileName} cannot be read`;
    return whyRefused(
      parcel,
      looked.flatMap((measures) => measures ?? []),
    );
  }

  async function route(request: IncomingMessage, response: ServerResponse): Promise<void> {
    const url = new URL(request.url ?? '/', 'http://127.0.0.1');
    const path = url.pathname.split('/').filter(Boolean);
    const asked = `${request.method} ${path[0] ?? ''}`;
    if (asked === 'GET ')
      return answer(response, 200, { name: 'Bimlo stand-in networks', storeFolder: options.storeFolder });
    if (asked === 'GET counts')
      return answer(response, 200, {
        accepted: store.counts(),
        calls: Object.fromEntries(calls),
        refused: [...refusedKeys],
      });
    if (asked === 'PUT faults') {
      faults = readFaults(JSON.parse((await readBody(request)).toString('utf8')), faults);
      return answer(response, 200, faults);
    }
    if (asked === 'PUT clock' && now !== undefined) {
      const { now: to } = JSON.parse((await readBody(request)).toString('utf8')) as { now: string };
      now = new Date(to).toISOString();
      return answer(response, 200, { now });
    }
    if (asked === 'POST stop') {
      answer(response, 200, {});
      return options.onStop();
    }
    if (asked === 'PUT pictures' && path[1]) {
      if (!/^[0-9a-f]{64}$/.test(path[1])) return answer(response, 400, { words: 'no content hash' });
      const kept = await store.putPicture(path[1], request);
      return answer(response, kept ? 200 : 400, kept ? {} : { words: 'the bytes do not match the hash' });
    }
    if (asked === 'GET pictures' && path[1] && /^[0-9a-f]{64}$/.test(path[1])) {
      const bytes = await store.readPicture(path[1]);
      if (!bytes) return answer(response, 404, {});
      response.writeHead(200, { 'content-type': 'application/octet-stream' }).end(bytes);
      return;
    }
    const [, network, , id] = path;
    if (path[0] === 'networks' && network && path[2] === 'held') {
      const asked = (name: string) => url.searchParams.get(name) ?? '';
      const account = { network, account: asked('account'), house: asked('house') };
      const which = url.searchParams.has('post') ? { postId: asked('post') } : { since: asked('since') };
      return answer(response, 200, store.heldBy(account, which));
    }
    if (path[0] === 'networks' && network && path[2] === 'posts') {
      if (request.method === 'POST') return publish(network, request, response);
      const key = url.searchParams.get('key');
      if (request.method === 'DELETE') {
        if (TAKES_NOTHING_DOWN.has(network)) return answer(response, 405, { words: 'what was sent cannot be unsent' });
        if (faults.slowMs > 0) await new Promise((resolve) => setTimeout(resolve, faults.slowMs));
        const isGone = await store.takeDown(network, key ?? '', now ?? new Date().toISOString());
        return answer(response, isGone ? 200 : 404, {});
      }
      if (key === null && !id) return answer(response, 200, store.list(network, LISTED));
      const post = id ? store.one(network, id) : store.find(network, key!);
      return post ? answer(response, 200, post) : answer(response, 404, {});
    }
    answer(response, 404, { words: 'no such address' });
  }

  return createServer((request, response) => {
    route(request, response).catch((error: unknown) => {
      const isInput = error instanceof SyntaxError || error instanceof RangeError;
      if (!isInput) console.error(error);
      answer(response, isInput ? 400 : 500, { words: error instanceof Error ? error.message : 'broken' });
    });
  });
}

function answer(response: ServerResponse, status: number, body: object): void {
  response.writeHead(status, { 'content-type': 'application/json' }).end(JSON.stringify(body));
}

async function readBody(request: IncomingMessage): Promise<Buffer> {
  const chunks: Buffer[] = [];
  let bytes = 0;
  for await (const chunk of request as AsyncIterable<Buffer>) {
    bytes += chunk.length;
    if (bytes > BODY_LIMIT) throw new RangeError(`more than ${BODY_LIMIT} bytes`);
    chunks.push(chunk);
  }
  return Buffer.concat(chunks);
}
