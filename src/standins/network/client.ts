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
  const call = (path: string, init: RequestInit = {}, bytes = 0, limitMs = timeoutMs) =>
    fetch(`${base}${path}`, {
      ...init,
      signal: AbortSignal.timeout(limitMs + Math.ceil(bytes / LEAST_BYTES_PER_MS)),
      redirect: 'error',
    });

  /** Sends the pictures as they leave. @returns what they are by then */
  async function sendPictures(parcel: Parcel, readPicture: ReadPicture): Promise<ParcelPicture[]> {
    const sent: ParcelPicture[] = [];
    for (const stored of parcel.pictures) {
      const { bytes, picture } = await readPicture(stored);
      sent.push(picture);
      const body = bytes instanceof Blob ? bytes : new Uint8Array(bytes);
      const length = bytes instanceof Blob ? bytes.size : bytes.length;
      const response = await call(`/pictures/${picture.sha256}`, { method: 'PUT', body }, length);
      await response.text();
      if (!response.ok) throw new Error(`answered ${response.status}`);
    }
    return sent;
  }

  async function held({ network, account }: Account, which: Record<string, string>): Promise<HeldAnswer> {
    try {
      const query = new URLSearchParams({ account, house, ...which });
      const response = await call(`/networks/${network}/held?${query}`, {}, 0, Math.max(timeoutMs, LIST_LIMIT_MS));
      if (!response.ok) return { kind: 'unknown', words: `answered ${response.status}` };
      const posts = (await response.json()) as AcceptedPost[];
      return {
        kind: 'told',
        posts: posts.map(({ id, key, postId = '', acceptedAt, parcel }) => ({
          ...{ key, postId, parcel, at: acceptedAt },
          address: standinAddress(network, id),
        })),
      };
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
        const response = await call(`/networks/${parcel.network}/posts`, {
          method: 'POST',
          headers: { 'content-type': 'application/json', 'idempotency-key': key, 'x-house': house, 'x-post': postId },
          body: JSON.stringify(sent),
        });
        const body = (await response.json()) as { id?: string; words?: string };
        if (response.status === 201 && body.id)
          return { kind: 'accepted', address: standinAddress(parcel.network, body.id) };
        // Something is out under this key, though not to the byte what was sent now.
        if (response.status === 409 && body.id)
          return { kind: 'accepted', address: standinAddress(parcel.network, body.id) };
        const words = body.words ?? `answered ${response.status}`;
        return response.status >= 500 || response.status === 429
          ? { kind: 'tryLater', words }
          : { kind: 'refused', words };
      } catch (error) {
        return isUnreachable(error)
          ? { kind: 'tryLater', words: NOT_REACHED }
          : { kind: 'unknown', words: wordsOf(error) };
      }
    },

    async find(network, key): Promise<FindAnswer> {
      try {
        const response = await call(`/networks/${network}/posts?key=${encodeURIComponent(key)}`);
        const body = (await response.json()) as Partial<AcceptedPost>;
        if (response.status === 404) return { kind: 'notFound' };
        if (response.ok && body.id)
          return { kind: 'found', address: standinAddress(network, body.id), at: body.acceptedAt };
        return { kind: 'unknown', words: `answered ${response.status}` };
      } catch (error) {
        return { kind: 'unknown', words: wordsOf(error) };
      }
    },

    heldSince: (account, since) => held(account, { since }),
    heldOf: (account, postId) => held(account, { post: postId }),

    async pictureOf(_network, sha256) {
      try {
        const response = await call(`/pictures/${sha256}`);
        return response.ok ? new Uint8Array(await response.arrayBuffer()) : null;
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
  if (error instanceof DOMException && error.name === 'TimeoutError') return NO_ANSWER;
  if (isUnreachable(error)) return NOT_REACHED;
  return error instanceof Error ? `${NO_ANSWER} (${error.message})` : NO_ANSWER;
}
