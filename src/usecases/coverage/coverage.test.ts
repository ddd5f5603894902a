import { afterAll, beforeAll, expect, describe, it } from 'vitest';
import { COVERAGE_ORDERS, cellsOf, cellWords, type CoverageOrder } from '@/core/coverage/coverage';
import { insertReadings } from '@/data/results/readings';
import { insertPieces } from '@/data/pieces/pieces';
import { changePosts } from '../calendar/changePosts';
import { editPiece, catchIdea } from '../pieces/pieces';
import { deletePost, restorePost } from '../posts/stages';
import { makeWorld, valueOf, type TestWorld } from '../testWorld';
import { COVERAGE_PAGE, loadCoverage } from './loadCoverage';

let world: TestWorld;
beforeAll(async () => void (world = await makeWorld()));
afterAll(() => world.close());

const load = (order: CoverageOrder, after: string | null = null) =>
  loadCoverage(world.db, world.brandId, { order, by: 'channels', after });
const rowOf = async (pieceId: string) => (await load('newest')).rows.find(({ id }) => id === pieceId);

/** What is kept, and what counting anew gives. */
const keptAndCounted = async () => {
  const read = () =>
    world.db.rows('select piece_id, is_shown, live, engagement::int from piece_uses order by piece_id');
  const kept = await read();
  await world.db.run('select recount_uses(array(select id from pieces))');
  return { kept, counted: await read() };
};

describe('how much a piece was used', () => {
  it('is kept through all that happens to its posts and its text', async () => {
    const idea = valueOf(await catchIdea(world.work, { brandId: world.brandId, title: 'Only an idea' }));
    expect(await rowOf(idea.id)).toBeUndefined();
    valueOf(await editPiece(world.work, idea.id, idea.version, { sourceText: 'Now it is a text.' }));
    expect(await rowOf(idea.id)).toMatchObject({ live: 0, hasText: true, cells: {} });

    const post = await world.makePost('pithline');
    expect(await rowOf(post.pieceId)).toMatchObject({
      live: 1,
      cells: { [world.channels.pithline]: { planned: 1, published: 0 } },
    });
    valueOf(await deletePost(world.work, post.id, post.version));
    expect(await rowOf(post.pieceId)).toBeUndefined();
    valueOf(await restorePost(world.work, post.id));
    const { version } = await world.post(post.id);
    const aside = { kind: 'setAside', reason: 'rain' } as const;
    valueOf(await changePosts(world.work, world.brandId, [{ id: post.id, version }], aside));
    expect(await rowOf(post.pieceId)).toMatchObject({ live: 0, cells: {} });
    const { kept, counted } = await keptAndCounted();
    expect(kept).toEqual(counted);
    expect(kept.length).toBeGreaterThan(1);
  });

  it('knows how its published posts did, by the last reading of each', async () => {
    const post = await world.makePost('glassrow');
    await world.db.run(`update posts set stage = 'published', published_at = now() where id = $1`, [post.id]);
    const none = { reach: 100, views: null, comments: null, shares: 0, clicks: 3, follows: null, watchSeconds: null };
    const read = (at: string, likes: number, saves: number) => ({ ...none, postId: post.id, at, likes, saves });
    await insertReadings(world.db, [read('2026-11-20T10:00:00Z', 5, 0), read('2026-11-22T10:00:00Z', 8, 2)]);
    expect(await rowOf(post.pieceId)).toMatchObject({ engagement: 10, live: 1 });
    await insertReadings(world.db, [read('2026-11-22T10:00:00Z', 9, 2)]);
    expect((await rowOf(post.pieceId))!.engagement).toBe(11);
    const { kept, counted } = await keptAndCounted();
    expect(kept).toEqual(counted);
  });

  it.each(COVERAGE_ORDERS)('pages %s through all pieces, each once, in order', async (order) => {
    const some = { brandId: world.brandId, note: '', link: '', sourceText: 'words', ownerId: world.work.actorId };
    if (order === 'newest')
      await insertPieces(
        world.db,
        Array.from({ length: 2 * COVERAGE_PAGE }, (_one, at) => ({
          ...some,
          id: crypto.randomUUID(),
          title: `Piece ${at}`,
          // Several at the same moment.
          createdAt: `2026-10-${10 + (at % 7)}T10:00:00Z`,
        })),
      );
    const seen: { id: string; madeAt: string; live: number; engagement: number }[] = [];
    let after: string | null = null;
    do {
      const page = await load(order, after);
      expect(page.count).toBeGreaterThan(2 * COVERAGE_PAGE);
      seen.push(...page.rows);
      after = page.next;
    } while (after !== null);
    expect(new Set(seen.map(({ id }) => id)).size).toBe(seen.length);
    expect(seen.length).toBe((await load(order)).count);
    const value = { newest: 'madeAt', oldest: 'madeAt', leastUsed: 'live', didBest: 'engagement' } as const;
    const values = seen.map((row) => row[value[order]]);
    const up = [...values].sort((one, other) => (one < other ? -1 : one > other ? 1 : 0));
    expect(values).toEqual(order === 'oldest' || order === 'leastUsed' ? up : up.reverse());
  });

  it('begins at the start for a place that nobody gave out', async () => {
    for (const odd of ['', 'x', '2026-99-99T10:00:00Z~a~1~1', `2026-10-10T10:00:00Z~${'a'.repeat(36)}~1~1`])
      expect((await load('newest', odd)).rows.length).toBeGreaterThan(0);
  });
});

describe('a cell', () => {
  const use = (channelId: string, format: 'photo' | 'text', isPublished: boolean, count: number) =>
    ({ pieceId: 'p', channelId, format, isPublished, count }) as const;
  const uses = [use('GR', 'photo', true, 2), use('GR', 'text', false, 1), use('PL', 'text', true, 1)];

  it('counts what is published and what is planned, by channel or by format', () => {
    expect(Object.fromEntries(cellsOf(uses, 'channels').get('p')!)).toEqual({
      GR: { published: 2, planned: 1 },
      PL: { published: 1, planned: 0 },
    });
    expect(Object.fromEntries(cellsOf(uses, 'formats').get('p')!)).toEqual({
      photo: { published: 2, planned: 0 },
      text: { published: 1, planned: 1 },
    });
  });

  it('is told in words', () => {
    expect(cellWords({ published: 2, planned: 1 })).toBe('2 published, 1 planned');
    expect(cellWords({ published: 0, planned: 0 })).toBe('not used');
  });
});
