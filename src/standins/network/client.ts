import pTimeout from 'p-timeout';
import {
  NotFitToLeave,
  type Account,
  type FindAnswer,
  type HeldAnswer,
  type Network,
  type Parcel,
  type ParcelPicture,
  type PublishAnswer,
  type ReadPicture,
  type TakeDownAnswer,
} from '@/core/delivery/network';
import type { AcceptedPost } from './store';

/** Where a network's page of a post is to be seen, from Bimlo's own address. */
export const standinAddress = (network: string, id: string): string => `/standins/${network}/${id}`;

/** An upload slower than this (1 Mbit/s) is given up. */
const LEAST_BYTES_PER_MS = 125;

/** How long a network may take to list what it holds, in milliseconds. */
const LIST_LIMIT_MS = 10_000;

const NO_ANSWER = 'the network did not answer in time';
const NOT_REACHED = 'the network could not be reached';

/**
 * Talks to the made-up networks.
 *
 * @param base for example `http://127.0.0.1:4311`
 * @param timeoutMs after which a call counts as unanswered; for an upload more, by its size
 * @param house which house's posts these are: several may use one account
 */
export function networkClient(base: string, timeoutMs: number, house: string): Network {
  /** Calls a network and reads what it answers, both within one time: a signal alone may not end the reading (undici holds weakly what it aborts). */
  const call = <T>(
    path: string,
    read: (response: Response) => Promise<T>,
    init: RequestInit = {},
    bytes = 0,
    limitMs = timeoutMs,
  ): Promise<T> => {
    const milliseconds = limitMs + Math.ceil(bytes / LEAST_BYTES_PER_MS);
    const signal = AbortSignal.timeout(milliseconds);
    return pTimeout(fetch(`${base}${path}`, { ...init, signal, redirect: 'error' }).then(read), { milliseconds });
  };

  /** Sends the pictures as they leave. @returns what they are by then */
  async function sendPictures(parcel: Parcel, readPicture: ReadPicture): Promise<ParcelPicture[]> {
    const sent: ParcelPicture[] = [];
    for (const stored of parcel.pictures) {
      const { bytes, picture } = await readPicture(stored);
      sent.push(picture);
      const body = bytes instanceof Blob ? bytes : new Uint8Array(bytes);
      const length = bytes instanceof Blob ? bytes.size : bytes.length;
      const read = async (response: Response) => {
        await response.text();
        if (!response.ok) throw new Error(`answered ${response.status}`);
      };
      await call(`/pictures/${picture.sha256}`, read, { method: 'PUT', body }, length);
    }
    return sent;
  }

  async function held({ network, account }: Account, which: Record<string, string>): Promise<HeldAnswer> {
    try {
      const query = new URLSearchParams({ account, house, ...which });
      const read = async (response: Response): Promise<HeldAnswer> => {
        if (!response.ok) return { kind: 'unknown', words: `answered ${response.status}` };
        const posts = (await response.json()) as AcceptedPost[];
        return {
          kind: 'told',
          posts: posts.map(({ id, key, postId = '', acceptedAt, parcel }) => ({
            ...{ key, postId, parcel, at: acceptedAt },
            address: standinAddress(network, id),
          })),
        };
      };
      return await call(`/networks/${network}/held?${query}`, read, {}, 0, Math.max(timeoutMs, LIST_LIMIT_MS));
    } catch (error) {
      return { kind: 'unknown', words: wordsOf(error) };
    }
  }

  return {
    async publish(parcel, { key, postId }, readPicture): Promise<PublishAnswer> {
      let pictures: ParcelPicture[];
      try {
        pictures = await sendPictures(parcel, readPicture);
      } catch (error) {
        if (error instanceof NotFitToLeave) throw error;
        return { kind: 'tryLater', words: `the pictures did not get through: ${wordsOf(error)}` };
      }
      const { words: _words, ...rest } = parcel;
      const sent = { ...rest, pictures };
      try {
        const read = async (response: Response): Promise<PublishAnswer> => {
          const body = (await response.json()) as { id?: string; words?: string };
          // With 409 something is out under this key, though not to the byte what was sent now.
          if ([201, 409].includes(response.status) && body.id)
            return { kind: 'accepted', address: standinAddress(parcel.network, body.id) };
          const words = body.words ?? `answered ${response.status}`;
          const isForLater = response.status >= 500 || response.status === 429;
          return { kind: isForLater ? 'tryLater' : 'refused', words };
        };
        return await call(`/networks/${parcel.network}/posts`, read, {
          method: 'POST',
          headers: { 'content-type': 'application/json', 'idempotency-key': key, 'x-house': house, 'x-post': postId },
          body: JSON.stringify(sent),
        });
      } catch (error) {
        return isUnreachable(error)
          ? { kind: 'tryLater', words: NOT_REACHED }
          : { kind: 'unknown', words: wordsOf(error) };
      }
    },

    async find(network, key): Promise<FindAnswer> {
      try {
        const read = async (response: Response): Promise<FindAnswer> => {
          const body = (await response.json()) as Partial<AcceptedPost>;
          if (response.status === 404) return { kind: 'notFound' };
          if (response.ok && body.id)
            return { kind: 'found', address: standinAddress(network, body.id), at: body.acceptedAt };
          return { kind: 'unknown', words: `answered ${response.status}` };
        };
        return await call(`/networks/${network}/posts?key=${encodeURIComponent(key)}`, read);
      } catch (error) {
        return { kind: 'unknown', words: wordsOf(error) };
      }
    },

    async takeDown(network, key): Promise<TakeDownAnswer> {
      try {
        const read = async (response: Response): Promise<TakeDownAnswer> => {
          await response.text();
          if (response.status === 405) return { kind: 'cannot' };
          return response.ok || response.status === 404
            ? { kind: 'gone' }
            : { kind: 'unknown', words: `the network answered ${response.status}` };
        };
        const path = `/networks/${network}/posts?key=${encodeURIComponent(key)}`;
        return await call(path, read, { method: 'DELETE' });
      } catch (error) {
        return { kind: 'unknown', words: wordsOf(error) };
      }
    },

    heldSince: (account, since) => held(account, { since }),
    heldOf: (account, postId) => held(account, { post: postId }),

    async pictureOf(_network, sha256) {
      try {
        return await call(`/pictures/${sha256}`, async (response) =>
          response.ok ? new Uint8Array(await response.arrayBuffer()) : null,
        );
      } catch {
        // Whatever kept it from coming: the picture is not had.
        return null;
      }
    },
  };
}

/** Nothing listened, so nothing can have been taken. */
function isUnreachable(error: unknown): boolean {
  const cause = error instanceof Error ? (error.cause as { code?: string } | undefined) : undefined;
  return cause?.code === 'ECONNREFUSED';
}

function wordsOf(error: unknown): string {
  if (error instanceof Error && error.name === 'TimeoutError') return NO_ANSWER;
  if (isUnreachable(error)) return NOT_REACHED;
  return error instanceof Error ? `${NO_ANSWER} (${error.message})` : NO_ANSWER;
}
