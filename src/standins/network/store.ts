import { createHash, randomUUID } from 'node:crypto';
import { createWriteStream, existsSync } from 'node:fs';
import { mkdir, open, readFile, rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { Parcel } from '@/core/delivery/network';

/** A post as a network holds it. */
export interface AcceptedPost {
  network: string;
  key: string;
  id: string;
  acceptedAt: string;
  /** Which house sent it, and of which of its posts it is a copy; absent in journals from before these were kept. */
  house?: string;
  postId?: string;
  parcel: Omit<Parcel, 'words'>;
}

/** What the networks hold: their own files, apart from Bimlo's. */
export interface NetworkStore {
  /** Takes a post, on disk before this resolves; the same key again gives the post taken first. */
  accept(post: Omit<AcceptedPost, 'id'>): Promise<AcceptedPost>;
  find(network: string, key: string): AcceptedPost | undefined;
  /** Shows a post no more; that it was taken is still known. @returns whether there was one to be seen */
  takeDown(network: string, key: string, at: string): Promise<boolean>;
  /** What an account took of a house's posts since an instant, or of one post; oldest first. */
  heldBy(
    account: { network: string; account: string; house: string },
    which: { since: string } | { postId: string },
  ): AcceptedPost[];
  /** Newest first. */
  list(network: string, limit: number): AcceptedPost[];
  one(network: string, id: string): AcceptedPost | undefined;
  /** Posts held by each network. */
  counts(): Record<string, number>;
  /** Keeps the bytes of a picture or video. @returns whether they have that hash */
  putPicture(sha256: string, bytes: Uint8Array | Readable): Promise<boolean>;
  hasPicture(sha256: string): boolean;
  /** Where the bytes of a picture lie. */
  picturePath(sha256: string): string;
  readPicture(sha256: string): Promise<Buffer | undefined>;
  close(): Promise<void>;
}

/** A line of the journal that says that a post was taken down. */
interface TakenDownLine {
  network: string;
  key: string;
  takenDownAt: string;
}

/** The id under which a network holds what was published with a key. */
export const idOf = (network: string, key: string): string =>
  createHash('sha256').update(`${network}/${key}`).digest('hex').slice(0, 12);

/** Opens the networks' store in a folder: a journal of accepted posts, one JSON line each, and pictures by content hash. */
export async function openNetworkStore(folder: string): Promise<NetworkStore> {
  await mkdir(join(folder, 'pictures'), { recursive: true });
  const path = join(folder, 'accepted.jsonl');
  const posts: AcceptedPost[] = [];
  const byKey = new Map<string, AcceptedPost>();
  const byId = new Map<string, AcceptedPost>();
  const takenDown = new Set<string>();
  const isSeen = ({ network, key }: { network: string; key: string }) => !takenDown.has(`${network}/${key}`);
  const add = (post: AcceptedPost) => {
    posts.push(post);
    byKey.set(`${post.network}/${post.key}`, post);
    byId.set(`${post.network}/${post.id}`, post);
  };
  if (existsSync(path))
    (await readFile(path, 'utf8'))
      .split('\n')
      .filter(Boolean)
      .map((line) => JSON.parse(line) as AcceptedPost | TakenDownLine)
      .forEach((line) => ('takenDownAt' in line ? takenDown.add(`${line.network}/${line.key}`) : add(line)));
  const journal = await open(path, 'a');
  const picturePath = (sha256: string) => join(folder, 'pictures', sha256);
  return {
    accept: async (post) => {
      const known = byKey.get(`${post.network}/${post.key}`);
      if (known) return known;
      const accepted = { ...post, id: idOf(post.network, post.key) };
      add(accepted);
      await journal.appendFile(`${JSON.stringify(accepted)}\n`);
      await journal.sync();
      return accepted;
    },
    find: (network, key) => byKey.get(`${network}/${key}`),
    takeDown: async (network, key, at) => {
      if (!byKey.has(`${network}/${key}`) || !isSeen({ network, key })) return false;
      takenDown.add(`${network}/${key}`);
      const line: TakenDownLine = { network, key, takenDownAt: at };
      await journal.appendFile(`${JSON.stringify(line)}\n`);
      await journal.sync();
      return true;
    },
    heldBy: ({ network, account, house }, which) =>
      posts
        .filter((post) => post.network === network && post.parcel.account === account && post.house === house)
        .filter((post) => ('since' in which ? post.acceptedAt >= which.since : post.postId === which.postId))
        .sort((a, b) => a.acceptedAt.localeCompare(b.acceptedAt)),
    list: (network, limit) =>
      posts
        .filter((post) => post.network === network && isSeen(post))
        .sort((a, b) => b.acceptedAt.localeCompare(a.acceptedAt))
        .slice(0, limit),
    one: (network, id) => {
      const post = byId.get(`${network}/${id}`);
      return post && isSeen(post) ? post : undefined;
    },
    counts: () => {
      const counts: Record<string, number> = {};
      for (const post of posts) counts[post.network] = (counts[post.network] ?? 0) + 1;
      return counts;
    },
    putPicture: async (sha256, bytes) => {
      const part = `${picturePath(sha256)}.${randomUUID()}.part`;
      const hash = createHash('sha256');
      const measure = new Transform({
        transform(chunk: Buffer, _encoding, done) {
          hash.update(chunk);
          done(null, chunk);
        },
      });
      await pipeline(bytes instanceof Readable ? bytes : Readable.from([bytes]), measure, createWriteStream(part));
      const fits = hash.digest('hex') === sha256;
      if (fits) await rename(part, picturePath(sha256));
      else await rm(part);
      return fits;
    },
    picturePath,
    hasPicture: (sha256) => existsSync(picturePath(sha256)),
    readPicture: async (sha256) => (existsSync(picturePath(sha256)) ? readFile(picturePath(sha256)) : undefined),
    close: () => journal.close(),
  };
}
