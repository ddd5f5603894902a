import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { NO_FILTER } from '@/core/calendar/filter';
import { readCsv } from '@/core/exchange/csvText';
import { makeParcel } from '@/core/delivery/parcel';
import { addDays } from '@/core/time/days';
import { localOf } from '@/core/time/plan';
import { listBrands } from '@/data/brands/brands';
import { listChannels } from '@/data/brands/channels';
import { openDb, type Db, type Queryable } from '@/data/database/db';
import { insertDeliveries } from '@/data/delivery/deliveries';
import { findByWords } from '@/data/search/find';
import { migrate, pendingMigrations, readMigrations } from '@/data/database/migrate';
import { listPictures } from '@/data/media/media';
import { listPeopleOfBrand } from '@/data/people/people';
import { listPostsById } from '@/data/posts/posts';
import { gatherStatistics } from '@/data/database/statistics';
import { readImport, runImport, startImport } from '@/usecases/exchange/longImport';
import { previewImport } from '@/usecases/exchange/previewImport';
import { changePosts } from '@/usecases/calendar/changePosts';
import { postsAsCsv } from '@/usecases/exchange/exportPosts';
import type { Work } from '@/usecases/useCase';
import { editPost } from '@/usecases/captions/editPost';
import { fill } from './data';
import { figureLine, percentile, ratioLine, timed, type Line } from './figures';

const NOW = '2026-11-01T09:00:00.000Z';
const POSTS = 8_000;
const MOVED = 500;
const ROWS = 2_000;
const EXPORTED = 3_000;
const ROUNDS = 7;

/** Changes, imports and exports of many, each against the bare statements of the same run; and what others wait meanwhile. */
export async function benchWriting(root: string): Promise<Line[]> {
  const db = await openDb(join(root, 'writing'));
  await migrate(db, await pendingMigrations(db, await readMigrations()));
  const { brandId } = await fill(db, POSTS, EXPORTED);
  await gatherStatistics(db);
  const [person] = await listPeopleOfBrand(db, brandId);
  const work: Work = { db, clock: { now: () => NOW }, ids: randomUUID, actorId: person!.id };
  const lines = [
    ...(await moving(db, work, brandId)),
    ...(await importing(db, work, brandId)),
    ...(await exporting(db, brandId)),
    await saving(db, work, brandId),
  ];
  await db.close();
  return lines;
}

/**
 * How long the searches of somebody take who asks the next one 20 ms after the last was answered, while something else runs:
 * the longest in milliseconds.
 */
async function longestSearch(db: Db, brandId: string, meanwhile: Promise<unknown>): Promise<number> {
  let runs = true;
  const ended = meanwhile.finally(() => (runs = false));
  let longest = 0;
  while (runs) {
    longest = Math.max(longest, await timed(() => findByWords(db, brandId, 'saturn', 8)));
    await sleep(20);
  }
  await ended;
  return longest;
}

async function moving(db: Db, work: Work, brandId: string): Promise<Line[]> {
  const ids = await scheduleMany(db, brandId, MOVED);
  const [move, floor, waits]: number[][] = [[], [], []];
  for (let round = 0; round < ROUNDS; round++) {
    const posts = await listPostsById(db, ids);
    const targets = posts.map(({ id, version }) => ({ id, version }));
    let outcome: Awaited<ReturnType<typeof changePosts>> | undefined;
    const moved = timed(async () => (outcome = await changePosts(work, brandId, targets, { kind: 'shift', days: 1 })));
    waits!.push(await longestSearch(db, brandId, moved));
    move!.push(await moved);
    if (!outcome?.ok || outcome.value.postIds.length < MOVED) throw new Error('not all were moved');
    floor!.push(
      await timed(() =>
        db.transaction(async (tx) => {
          await tx.run(`update posts set plan_date = plan_date + 1, version = version + 1 where id = any($1::uuid[])`, [
            ids,
          ]);
          await tx.run(
            `update deliveries set due_at = due_at + interval '1 day', next_try_at = next_try_at + interval '1 day'
             where post_id = any($1::uuid[])`,
            [ids],
          );
        }),
      ),
    );
  }
  return [
    ratioLine(
      `moving ${MOVED} scheduled posts by a day / the bare updates`,
      percentile(move!, 50),
      percentile(floor!, 50),
      6,
    ),
    figureLine('… a search meanwhile, the longest wait', percentile(waits!, 50), 300, 'ms'),
  ];
}

/** Lets posts of a network of plain texts wait to leave, on days to come. @returns their ids */
async function scheduleMany(db: Db, brandId: string, count: number): Promise<string[]> {
  const channels = await listChannels(db, brandId);
  const channel = channels.find(({ sheet }) => sheet.slug === 'pithline')!;
  const rows = await db.rows<{ id: string }>(
    `update posts set stage = 'scheduled', plan_date = '2026-12-01', plan_time = '10:00', format = 'text', caption = 'Open',
       hashtags = '', headline = '', published_at = null, address = ''
     where id in (select id from posts where channel_id = $1 order by id limit $2) returning id`,
    [channel.id, count],
  );
  const posts = await listPostsById(
    db,
    rows.map(({ id }) => id),
  );
  await insertDeliveries(
    db,
    await Promise.all(
      posts.map(async (post) => ({
        id: randomUUID(),
        brandId,
        postId: post.id,
        channelId: channel.id,
        mode: 'automatic' as const,
        state: 'waiting' as const,
        idempotencyKey: randomUUID(),
        parcel: makeParcel({ ...post, pictures: await listPictures(db, post.id) }, channel),
        dueAt: '2026-12-01T10:00:00.000Z',
        nextTryAt: '2026-12-01T10:00:00.000Z',
        attempts: 0,
        words: '',
        createdAt: NOW,
      })),
    ),
  );
  return posts.map(({ id }) => id);
}

async function importing(db: Db, work: Work, brandId: string): Promise<Line[]> {
  const channels = await listChannels(db, brandId);
  const sign = channels.find(({ sheet }) => sheet.slug === 'pithline')!.callSign;
  const [bring, floor, waits]: number[][] = [[], [], []];
  for (let round = 0; round < ROUNDS; round++) {
    const text = [
      'piece,title,channel,date,time,caption',
      ...Array.from(
        { length: ROWS },
        (_, n) =>
          `Piece ${round}-${n % 200},Row ${round}-${n},${sign},${addDays('2026-12-01', n % 60)},10:00,Open ${n}`,
      ),
    ].join('\n');
    const table = readCsv(text);
    if (!table.ok) throw new Error(table.refusal.message);
    const file = `bench-${round}.csv`;
    const preview = await previewImport(db, brandId, NOW, table.value, file, null);
    if (!preview.ok) throw new Error(preview.refusal.message);
    const { mapping } = preview.value;
    let made = 0;
    const brought = timed(async () => {
      const started = await startImport(work, {
        brandId,
        table: table.value,
        fileName: file,
        mapping,
        extent: 'whole',
      });
      if (!started.ok) throw new Error(started.refusal.message);
      await runImport(work, started.value.id);
      const ended = await readImport(work, started.value.id);
      made = ended.ok ? ended.value.outcome.made : 0;
    });
    waits!.push(await longestSearch(db, brandId, brought));
    bring!.push(await brought);
    if (made !== ROWS) throw new Error(`only ${made} rows came in`);
    floor!.push(await timed(() => bareInserts(db)));
  }
  return [
    ratioLine(`an import of ${ROWS} rows / the bare inserts`, percentile(bring!, 50), percentile(floor!, 50), 8),
    figureLine('… a search meanwhile, the longest wait', percentile(waits!, 50), 300, 'ms'),
  ];
}

/** The rows an import makes, copied in one statement each table, and rolled back. */
async function bareInserts(db: Db): Promise<void> {
  class Enough extends Error {}
  const copy = async (tx: Queryable) => {
    await tx.run(
      `insert into posts (id, brand_id, piece_id, channel_id, format, title, caption, plan_date, plan_time, stage, owner_id,
         created_at, created_by)
       select gen_random_uuid(), brand_id, piece_id, channel_id, format, title, caption, plan_date, plan_time, 'drafting', owner_id,
         created_at, created_by from posts order by id limit ${ROWS}`,
    );
    throw new Enough();
  };
  await db.transaction(copy).catch((error: unknown) => {
    if (!(error instanceof Enough)) throw error;
  });
}

async function written(texts: AsyncIterable<string>): Promise<number> {
  let length = 0;
  for await (const text of texts) length += text.length;
  return length;
}

async function exporting(db: Db, brandId: string): Promise<Line[]> {
  const brand = (await listBrands(db)).find(({ id }) => id === brandId)!;
  const [channel] = await listChannels(db, brandId);
  const filter = { ...NO_FILTER, channels: [channel!.id] };
  const [out, floor]: number[][] = [[], []];
  for (let round = 0; round < ROUNDS; round++) {
    out!.push(await timed(() => written(postsAsCsv(db, brand, filter, NOW))));
    floor!.push(
      await timed(() =>
        db.rows(
          `select id, piece_id, title, channel_id, format, plan_date, plan_time, stage, headline, caption, hashtags, link, owner_id
           from posts where channel_id = $1 and deleted_at is null and archived_at is null order by plan_date, plan_time, id`,
          [channel!.id],
        ),
      ),
    );
  }
  return [
    ratioLine(
      `an export of ${Math.round(POSTS / 8)} posts / reading its rows`,
      percentile(out!, 50),
      percentile(floor!, 50),
      3,
    ),
  ];
}

/** The statements that saving a caption takes. */
async function saving(db: Db, work: Work, brandId: string): Promise<Line> {
  const today = localOf(NOW, 'Europe/Lisbon').date;
  const [row] = await db.rows<{ id: string; version: number }>(
    `select id, version from posts where brand_id = $1 and stage = 'drafting' and plan_date >= $2 limit 1`,
    [brandId, today],
  );
  let statements = 0;
  const tell = (inner: Queryable): Queryable => ({
    rows: (sql, parameters) => (statements++, inner.rows(sql, parameters)),
    run: (sql, parameters) => (statements++, inner.run(sql, parameters)),
  });
  const counted: Db = { ...db, ...tell(db), transaction: (act) => db.transaction((tx) => act(tell(tx))) };
  const saved = await editPost({ ...work, db: counted }, row!.id, row!.version, { caption: 'Saved' });
  if (!saved.ok) throw new Error(saved.refusal.message);
  return figureLine('saving a caption', statements, 6, 'queries');
}
