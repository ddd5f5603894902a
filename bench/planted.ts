import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { makeParcel } from '@/core/delivery/parcel';
import { listBrands } from '@/data/brands/brands';
import { listChannels } from '@/data/brands/channels';
import type { Db } from '@/data/database/db';
import { insertDeliveries } from '@/data/delivery/deliveries';
import { listAwaitingRelease } from '@/data/delivery/restores';
import { takeFolder } from '@/data/folder/folder';
import { listPeopleOfBrand } from '@/data/people/people';
import { insertPieces } from '@/data/pieces/pieces';
import { insertPosts } from '@/data/posts/posts';
import type { AcceptedPost } from '@/standins/network/store';
import { openFolderDb } from '@/runtime/bimlo';
import { NOW, type TestServer } from '../tests/support/server';

/** When planted posts are due. */
export const DUE = '2026-11-24T04:30:00.000Z';

/**
 * Puts the posts and their deliveries straight into the data folder of a Bimlo that is not running.
 *
 * @param due when they are due
 * @param name what they are called, and say: no two of them the same
 * @returns their keys
 */
export async function plant(
  server: TestServer,
  count: number,
  { due = DUE, name = 'Departure' }: { due?: string; name?: string } = {},
): Promise<Set<string>> {
  const folder = await takeFolder(server.data);
  const db = await openFolderDb(folder, { now: () => NOW });
  const brand = (await listBrands(db))[0]!;
  const channel = (await listChannels(db, brand.id)).find(({ callSign }) => callSign === 'PL')!;
  const ownerId = (await listPeopleOfBrand(db, brand.id))[0]!.id;
  const pieceId = randomUUID();
  await insertPieces(db, [
    {
      id: pieceId,
      brandId: brand.id,
      title: 'Many',
      note: '',
      link: '',
      sourceText: '',
      ownerId,
      createdAt: NOW,
    },
  ]);
  const words = { headline: '', hashtags: '', link: '' };
  const posts = Array.from({ length: count }, (_, n) => ({
    ...words,
    id: randomUUID() as string,
    brandId: brand.id,
    pieceId,
    channelId: channel.id,
    format: 'text' as const,
    title: `${name} ${n}`,
    caption: `${name} ${n}`,
    date: due.slice(0, 10),
    time: due.slice(11, 16),
    stage: 'scheduled' as const,
    ownerId,
    publishedAt: null,
    address: '',
    createdAt: NOW,
  }));
  await insertPosts(db, posts);
  const deliveries = posts.map((post) => ({
    id: randomUUID(),
    brandId: brand.id,
    postId: post.id,
    channelId: channel.id,
    mode: 'automatic' as const,
    state: 'waiting' as const,
    idempotencyKey: randomUUID() as string,
    parcel: makeParcel({ ...post, pictures: [] }, channel),
    dueAt: due,
    nextTryAt: due,
    attempts: 0,
    words: '',
    createdAt: NOW,
  }));
  await insertDeliveries(db, deliveries);
  await db.close();
  await folder.release();
  return new Set(deliveries.map(({ idempotencyKey }) => idempotencyKey));
}

/** Reads from the database of a Bimlo that is not running. */
async function reading<T>(server: TestServer, read: (db: Db) => Promise<T>): Promise<T> {
  const folder = await takeFolder(server.data);
  const db = await openFolderDb(folder, { now: () => NOW });
  const found = await read(db);
  await db.close();
  await folder.release();
  return found;
}

/** The states of deliveries by their keys, of a Bimlo that is not running. */
export const statesOf = (server: TestServer, keys: ReadonlySet<string>): Promise<Map<string, string>> =>
  reading(server, async (db) => {
    const rows = await db.rows<{ key: string; state: string }>(
      `select idempotency_key as key, state from deliveries where idempotency_key = any($1::text[])`,
      [[...keys]],
    );
    return new Map(rows.map(({ key, state }) => [key, state]));
  });

/** How many deliveries wait to be released, of a Bimlo that is not running. */
export const waitingOf = (server: TestServer): Promise<number> =>
  reading(server, async (db) => (await listAwaitingRelease(db, (await listBrands(db))[0]!.id)).length);

/** The brand that posts are planted in. */
export const brandIdOf = (server: TestServer): Promise<string> =>
  reading(server, async (db) => (await listBrands(db))[0]!.id);

/** What the networks hold under these keys, by their own journal. */
export const acceptedOf = (server: TestServer, keys: ReadonlySet<string>): AcceptedPost[] =>
  readFileSync(join(server.networkStore, 'accepted.jsonl'), 'utf8')
    .split('\n')
    .filter(Boolean)
    .map((line) => JSON.parse(line) as AcceptedPost)
    .filter(({ key }) => keys.has(key));
