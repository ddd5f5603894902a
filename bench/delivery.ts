import { randomUUID } from 'node:crypto';
import { takeFolder } from '@/data/folder';
import { openFolderDb } from '@/runtime/bimlo';
import { makeParcel } from '@/core/delivery/parcel';
import { addMs } from '@/core/time/plan';
import { listBrands } from '@/data/brands';
import { listChannels } from '@/data/channels';
import { insertDeliveries } from '@/data/deliveries';
import { listPeopleOfBrand } from '@/data/people';
import { insertPiece } from '@/data/pieces';
import { insertPosts } from '@/data/posts';
import prepare from '../tests/support/prepare';
import { NOW, startServer, type TestServer } from '../tests/support/server';
import { figureLine, timed, type Line } from './figures';

const COUNT = 500;
const DUE = '2026-11-24T04:30:00.000Z';
/** Minutes after the due instant at which the clock is moved, beyond every wait and its jitter. */
const LATER_MINUTES = [2, 9, 28, 40];

/** 500 posts due in one minute: with a fifth of first and second calls failing or silent, then with 5% refused for good. */
export async function benchDelivery(): Promise<Line[]> {
  prepare();
  const shaky = await deliver({ seed: 11, tryLater: 0.08, timeOutBefore: 0.06, timeOutAfter: 0.06, onlyFirstCalls: 2 });
  const refusing = await deliver({ seed: 12, refuse: 0.05 });
  return [
    figureLine('500 posts, 20% of first and second calls failing: not out', COUNT - shaky.published, 0, 'posts'),
    figureLine(
      '… accepted more than once, or lost, by the networks’ count',
      Math.abs(shaky.accepted - COUNT),
      0,
      'posts',
    ),
    figureLine('… time to deliver, all four rounds', shaky.seconds, 600, 's'),
    figureLine(
      '500 posts, 5% refused for good: shown as failed but not refused, or the reverse',
      refusing.wrong,
      0,
      'posts',
    ),
    figureLine('… refused', refusing.failed, COUNT * 0.1, 'posts'),
    figureLine('… accepted and out, missing to 500', COUNT - refusing.published - refusing.failed, 0, 'posts'),
  ];
}

async function deliver(faults: object) {
  const server = await startServer({ BIMLO_SEND_TIMEOUT_MS: '1000' });
  await server.kill();
  const keys = await plant(server);
  await server.start();
  const before = (await server.counts()).accepted.pithline!;
  await server.faults(faults);
  const seconds =
    (await timed(async () => {
      await server.goTo(DUE);
      for (const minutes of LATER_MINUTES) await server.goTo(addMs(DUE, minutes * 60_000));
    })) / 1000;
  const counts = await server.counts();
  await server.kill();
  const states = await statesOf(server, keys);
  await server.end();
  const failed = [...states].filter(([, state]) => state === 'failed').map(([key]) => key);
  const refused = new Set(counts.refused);
  const wrong =
    failed.filter((key) => !refused.has(key)).length +
    [...refused].filter((key) => states.has(key) && states.get(key) !== 'failed').length;
  return {
    published: [...states.values()].filter((state) => state === 'sent').length,
    accepted: counts.accepted.pithline! - before,
    failed: failed.length,
    wrong,
    seconds,
  };
}

/** Puts the posts and their deliveries straight into the data folder of a Bimlo that is not running. @returns their keys */
async function plant(server: TestServer): Promise<Set<string>> {
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
  const posts = Array.from({ length: COUNT }, (_, n) => ({
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

async function statesOf(server: TestServer, keys: ReadonlySet<string>): Promise<Map<string, string>> {
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
