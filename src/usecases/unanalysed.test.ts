import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { NO_FILTER } from '@/core/calendar/filter';
import { BLANK_STEP } from '@/core/prep/step';
import { addDays } from '@/core/time/days';
import { oneBrand, type Brand } from '@/data/brands/brands';
import { listChannels, type Channel } from '@/data/brands/channels';
import type { Db, Queryable } from '@/data/database/db';
import { claimDue } from '@/data/delivery/claims';
import { insertDeliveries, maybeNextDue } from '@/data/delivery/deliveries';
import { listToAsk } from '@/data/delivery/doubts';
import { findByWords } from '@/data/search/find';
import { listLibrary } from '@/data/media/library';
import { listPeopleOfBrand, type Person } from '@/data/people/people';
import { insertPieces, listIdeas } from '@/data/pieces/pieces';
import { insertPosts } from '@/data/posts/posts';
import { insertSteps } from '@/data/prep/steps';
import { listWordsVersions } from '@/data/posts/wordsVersions';
import { loadCalendar, type Arrangement } from './calendar/loadCalendar';
import { loadCoverage } from './coverage/loadCoverage';
import { loadEncores } from './encores/loadEncores';
import { loadDesk } from './desk/loadDesk';
import { loadDeskSteps } from './desk/loadDeskSteps';
import { postsAsCsv } from './exchange/exportPosts';
import { makeWorld, valueOf, type TestWorld } from './testWorld';
import { loadSheet, loadSlips } from './posts/loadPosts';
import { loadDepartures } from './delivery/loadDepartures';
import { editPost } from './captions/editPost';

/** Posts of the world, 700 of them in the six weeks from the first day on, each with a step; pieces; deliveries that wait. */
const [POSTS, NEAR, PIECES, WAITING] = [6_000, 700, 600, 400];
const FIRST_DAY = '2026-11-16';
const NOW = '2026-11-23T09:00:00.000Z';

/**
 * Rows that a query may visit, over all nodes of its plan, on a database that never gathered statistics: for what is about
 * one post or the next few, and for what is about hundreds. A plan that joins every row with every other visits millions.
 */
const VISITS = { few: 3_000, many: 40_000 };

let world: TestWorld;
let brand: Brand;
let channels: Channel[];
let person: Person;
let post: { id: string };

beforeAll(async () => {
  world = await makeWorld();
  const { db, brandId } = world;
  brand = await oneBrand(db, brandId);
  channels = await listChannels(db, brandId);
  person = (await listPeopleOfBrand(db, brandId)).find(({ id }) => id === world.work.actorId)!;
  const pieces = Array.from({ length: PIECES }, (_, n) => ({
    id: randomUUID(),
    brandId,
    title: `Piece ${n}`,
    note: '',
    link: '',
    sourceText: n % 2 ? 'A talk.' : '',
    ownerId: person.id,
    createdAt: NOW,
  }));
  await insertPieces(db, pieces);
  const posts = Array.from({ length: POSTS }, (_, n) => {
    const isNear = n < NEAR;
    const date = isNear ? addDays(FIRST_DAY, n % 42) : addDays(FIRST_DAY, -1 - (n % 1_500));
    return {
      id: randomUUID() as string,
      brandId,
      pieceId: pieces[n % PIECES]!.id,
      channelId: channels[n % channels.length]!.id,
      format: 'text' as const,
      title: `Post ${n}`,
      headline: '',
      caption: `The dome is open, night ${n}.`,
      hashtags: '',
      link: '',
      date,
      time: '10:00',
      stage: isNear ? (n < WAITING ? ('scheduled' as const) : ('drafting' as const)) : ('published' as const),
      ownerId: person.id,
      publishedAt: isNear ? null : `${date}T10:00:00.000Z`,
      address: '',
      createdAt: NOW,
    };
  });
  for (let from = 0; from < POSTS; from += 2_000) await insertPosts(db, posts.slice(from, from + 2_000));
  await insertDeliveries(
    db,
    posts
      .filter((one, n) => n < WAITING || n % 3 === 0)
      .map((one) => ({
        id: randomUUID(),
        brandId,
        postId: one.id,
        channelId: one.channelId,
        mode: 'automatic' as const,
        state: one.publishedAt ? ('sent' as const) : ('waiting' as const),
        idempotencyKey: randomUUID(),
        parcel: { network: 'pithline', account: '@moor', format: 'text', words: {}, pictures: [], link: '' } as never,
        dueAt: `${one.date}T10:00:00.000Z`,
        nextTryAt: `${one.date}T10:00:00.000Z`,
        attempts: 0,
        words: '',
        createdAt: NOW,
      })),
  );
  await insertSteps(
    db,
    posts.map((one) => ({
      ...BLANK_STEP,
      title: 'Write it',
      id: randomUUID(),
      brandId,
      postId: one.id,
      pieceId: null,
      position: 1,
      ownerId: person.id,
      pinned: null,
      day: one.date,
      plannedOn: FIRST_DAY,
      doneAt: one.publishedAt,
      doneOn: one.publishedAt ? one.date : null,
      doneBy: one.publishedAt ? person.id : null,
    })),
  );
  post = { id: posts.at(NEAR - 2)!.id };
});
afterAll(() => world.close());

interface PlanNode {
  'Actual Rows': number;
  'Actual Loops': number;
  'Rows Removed by Filter'?: number;
  'Rows Removed by Join Filter'?: number;
  Plans?: PlanNode[];
}

/** Rows that a plan looked at, over all its nodes. */
const visited = (node: PlanNode): number =>
  node['Actual Loops'] *
    (node['Actual Rows'] + (node['Rows Removed by Filter'] ?? 0) + (node['Rows Removed by Join Filter'] ?? 0)) +
  (node.Plans ?? []).reduce((sum, inner) => sum + visited(inner), 0);

/** Runs something and gives each query it asked with the rows its plan visits. */
async function visitsOf(act: (db: Db) => Promise<unknown>): Promise<{ sql: string; rows: number }[]> {
  const found: { sql: string; rows: number }[] = [];
  const explained = (inner: Queryable): Queryable => ({
    rows: async (sql, parameters) => {
      // A statement that writes is done for its explaining, undone, and done.
      const writes = /\b(update \w+ \w* ?set|insert into|delete from)\b/.test(sql);
      if (writes) await inner.run('savepoint looked_at');
      const [answer] = await inner.rows<{ 'QUERY PLAN': { Plan: PlanNode }[] }>(
        `explain (analyze, format json) ${sql}`,
        parameters,
      );
      if (writes) await inner.run('rollback to savepoint looked_at');
      found.push({ sql, rows: visited(answer!['QUERY PLAN'][0]!.Plan) });
      return inner.rows(sql, parameters);
    },
    run: (sql, parameters) => inner.run(sql, parameters),
  });
  await act({
    ...world.db,
    ...explained(world.db),
    transaction: (work) => world.db.transaction((tx) => work(explained(tx))),
  });
  return found;
}

const calendar =
  (arrangement: Arrangement, filter = NO_FILTER) =>
  (db: Db) =>
    loadCalendar(db, [brand], channels, { arrangement, date: '2026-11-23', weeks: 1, filter, stepsOf: 'all' }, NOW);

const NOBODY_STOPPED = { id: randomUUID(), stopped: [] };

describe('on a database that gathered no statistics', () => {
  it('there are none', async () => {
    const rows = await world.db.rows<{ pages: number }>(
      `select reltuples::int as pages from pg_class where relname in ('posts', 'steps', 'deliveries', 'pieces')`,
    );
    expect(rows.map(({ pages }) => pages)).toEqual([-1, -1, -1, -1]);
  });

  it.each<[string, keyof typeof VISITS, (db: Db) => Promise<unknown>]>([
    ['lanes', 'many', calendar('lanes')],
    ['month', 'many', calendar('month')],
    ['day', 'many', calendar('day')],
    ['stages', 'many', calendar('stages')],
    ['list', 'many', calendar('list')],
    ['list of one channel', 'many', (db) => calendar('list', { ...NO_FILTER, channels: [channels[0]!.id] })(db)],
    ['list by words', 'many', calendar('list', { ...NO_FILTER, words: 'dome night' })],
    ['desk', 'many', (db) => loadDesk(db, brand, channels, NOW)],
    ['steps of a person', 'many', (db) => loadDeskSteps(db, person, brand.id, '2026-11-23')],
    ['departures', 'many', (db) => loadDepartures(db, brand, NOW)],
    ['ideas', 'many', (db) => listIdeas(db, [brand.id], 200)],
    ['coverage', 'many', (db) => loadCoverage(db, brand.id, { order: 'leastUsed', by: 'channels', after: null })],
    ['encores', 'many', (db) => loadEncores(db, { id: brand.id, encoreDays: 60 }, NOW)],
    ['library', 'many', (db) => listLibrary(db, brand.id, '', null, 100)],
    ['search', 'many', (db) => findByWords(db, brand.id, 'dome 300', 20)],
    [
      'export',
      'many',
      async (db) => {
        for await (const text of postsAsCsv(db, brand, NO_FILTER, NOW)) expect(text.length).toBeGreaterThan(0);
      },
    ],
    ['an open post', 'few', (db) => loadSheet(db, post.id)],
    ['a slip', 'few', (db) => loadSlips(db, [post.id])],
    ['versions of a post', 'few', (db) => listWordsVersions(db, post.id, 50)],
    [
      'saving a caption',
      'few',
      async (db) => {
        valueOf(await editPost({ ...world.work, db }, post.id, 1, { caption: 'Shut.' }));
      },
    ],
    [
      'what is due',
      'few',
      (db) => db.transaction((tx) => claimDue(tx, NOW, NOBODY_STOPPED, { inAll: 64, onChannel: 16 })),
    ],
    ['when the next is due', 'few', (db) => maybeNextDue(db)],
    ['whom to ask about what is unsure', 'few', (db) => listToAsk(db, NOW, 50)],
  ])('%s visits few rows', async (_what, extent, act) => {
    const queries = await visitsOf(act);
    expect(queries.length).toBeGreaterThan(0);
    expect(queries.filter(({ rows }) => rows > VISITS[extent])).toEqual([]);
  });
});
