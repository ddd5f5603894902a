import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { makeParcel } from '@/core/delivery/parcel';
import { listBrands } from '@/data/brands/brands';
import { listChannels } from '@/data/brands/channels';
import { insertDeliveries } from '@/data/delivery/deliveries';
import { takeFolder } from '@/data/folder/folder';
import { listPeopleOfBrand } from '@/data/people/people';
import { insertPiece } from '@/data/pieces/pieces';
import { insertPosts } from '@/data/posts/posts';
import type { AcceptedPost } from '@/standins/network/store';
import { openFolderDb } from '@/runtime/bimlo';
import { NOW, type TestServer } from '../tests/support/server';

/** When planted posts are due. */
export const DUE = '2026-11-24T04:30:00.000Z';

/** Puts the posts and their deliveries straight into the data folder of a Bimlo that is not running. @returns their keys */
export async function plant(server: TestServer, count: number): Promise<Set<string>> {
  const folder = await takeFolder(server.data);
  const db = await openFolderDb(folder, { now: () => NOW });
  const brand = (await listBrands(db))[0]!;
  const channel = (await listChannels(db, brand.id)).find(({ callSign }) => callSign === 'PL')!;
  const ownerId = (await listPeopleOfBrand(db, brand.id))[0]!.id;
  const pieceId = randomUUID();
  await insertPiece(db, {
    id: pieceId,
    brandId: brand.id,
    title: 'Many',
    note: '',
    link: '',
    sourceText: '',
    ownerId,
    createdAt: NOW,
  });
  const words = { headline: '', hashtags: '', link: '' };
  const posts = Array.from({ length: count }, (_, n) => ({
    ...words,
    id: randomUUID() as string,
    brandId: brand.id,
    pieceId,
    channelId: channel.id,
    format: 'text' as const,
    title: `Departure ${n}`,
    caption: `Departure ${n}`,
    date: DUE.slice(0, 10),
    time: '04:30',
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
    dueAt: DUE,
    nextTryAt: DUE,
    attempts: 0,
    words: '',
    createdAt: NOW,
  }));
  await insertDeliveries(db, deliveries);
  await db.close();
  await folder.release();
  return new Set(deliveries.map(({ idempotencyKey }) => idempotencyKey));
}

/** The states of deliveries by their keys, of a Bimlo that is not running. */
export async function statesOf(server: TestServer, keys: ReadonlySet<string>): Promise<Map<string, string>> {
  const folder = await takeFolder(server.data);
  const db = await openFolderDb(folder, { now: () => NOW });
  const rows = await db.rows<{ key: string; state: string }>(
    `select idempotency_key as key, state from deliveries where idempotency_key = any($1::text[])`,
    [[...keys]],
  );
  await db.close();
  await folder.release();
  return new Map(rows.map(({ key, state }) => [key, state]));
}

/** What the networks hold under these keys, by their own journal. */
export const acceptedOf = (server: TestServer, keys: ReadonlySet<string>): AcceptedPost[] =>
  readFileSync(join(server.data, 'networks', 'accepted.jsonl'), 'utf8')
    .split('\n')
    .filter(Boolean)
    .map((line) => JSON.parse(line) as AcceptedPost)
    .filter(({ key }) => keys.has(key));
