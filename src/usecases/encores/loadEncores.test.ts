import { randomUUID } from 'node:crypto';
import fc from 'fast-check';
import { afterAll, beforeAll, expect, it } from 'vitest';
import type { Lasting } from '@/core/encores/encores';
import { groupBy } from '@/core/group';
import { engagementRate, NOTHING_TOLD, type Counts } from '@/core/results/engagement';
import { addMs } from '@/core/time/plan';
import { insertPosts } from '@/data/posts/posts';
import { insertReadings } from '@/data/results/readings';
import { catchIdea } from '../pieces/pieces';
import { makeWorld, valueOf, type TestWorld } from '../testWorld';
import { loadEncores } from './loadEncores';

const NOW = '2026-11-23T09:00:00.000Z';
const [MIN_DAYS, SHOWN] = [60, 4];
const DAY_MS = 86_400_000;

let world: TestWorld;
let pieceId: string;
beforeAll(async () => {
  world = await makeWorld();
  pieceId = valueOf(await catchIdea(world.work, { brandId: world.brandId, title: 'Kettle at noon' })).id;
  await world.db.run('update channels set archived_at = now() where id = $1', [archivedChannel()]);
});
afterAll(() => world.close());

const archivedChannel = () => Object.values(world.channels)[2]!;

interface Made {
  id: string;
  rootId: string;
  group: string;
  ageMs: number;
  stage: 'published' | 'drafting' | 'setAside';
  isDeleted: boolean;
  lasting: Lasting;
  rate: number | null;
}

/** A post of each of these, and its readings; what is no first of a family is the last first one again. */
async function make(drawn: readonly Drawn[]): Promise<Made[]> {
  await world.db.run('delete from readings', []);
  await world.db.run('delete from posts', []);
  const channels = Object.values(world.channels);
  let root: { id: string; channelId: string } | null = null;
  const made = drawn.map((one) => {
    const id: string = randomUUID();
    const isAgain = one.isAgain && root !== null;
    if (!isAgain) root = { id, channelId: channels[one.channel % channels.length]! };
    const { id: rootId, channelId } = root!;
    const format = one.isPhoto ? ('photo' as const) : ('text' as const);
    const publishedAt = one.stage === 'published' ? addMs(NOW, -one.ageMinutes * 60_000) : null;
    return { ...one, id, rootId, channelId, format, publishedAt, encoreOf: isAgain ? rootId : null };
  });
  const { brandId, work } = world;
  const common = {
    ...{ brandId, pieceId, ownerId: work.actorId, address: '', createdAt: NOW, time: '10:00' },
    title: 'Night',
  };
  const texts = { headline: '', caption: 'The dome is open.', hashtags: '', link: '' };
  await insertPosts(
    world.db,
    made.map((one) => ({ ...common, ...texts, ...one, date: '2026-11-20' })),
  );
  await world.db.run(
    `update posts p set lasting = x.lasting, deleted_at = case when x."isDeleted" then now() end
     from jsonb_to_recordset($1::jsonb) as x (id uuid, lasting text, "isDeleted" boolean) where p.id = x.id`,
    [JSON.stringify(made)],
  );
  await insertReadings(
    world.db,
    made.flatMap(({ id: postId, readings }) =>
      readings.map((counts, at) => ({ ...NOTHING_TOLD, ...counts, postId, at: addMs(NOW, at - 10_000) })),
    ),
  );
  return made.map((one) => ({
    ...{ id: one.id, rootId: one.rootId, stage: one.stage, isDeleted: one.isDeleted, lasting: one.lasting },
    ...{ group: `${one.channelId} ${one.format}`, ageMs: one.ageMinutes * 60_000 },
    rate: engagementRate(one.readings.at(-1) ?? {})?.value ?? null,
  }));
}

/** Encores worked out by hand from all posts: pair by pair, family by family. */
function workedOut(all: readonly Made[]) {
  const living = all.filter(({ isDeleted }) => !isDeleted);
  const out = living.filter(({ stage, group }) => stage === 'published' && !group.startsWith(archivedChannel()));
  const percentileOf = (post: Made) => {
    const rates = out.flatMap(({ group, rate, id }) =>
      group === post.group && rate !== null && id !== post.id ? rate : [],
    );
    if (post.rate === null || rates.length < 4) return null;
    const own = post.rate;
    return rates.reduce((sum, rate) => sum + (rate < own ? 1 : rate === own ? 0.5 : 0), 0) / rates.length;
  };
  const isAboveMiddle = (post: Made) => {
    const rates = out.flatMap(({ group, rate }) => (group === post.group ? (rate ?? []) : [])).sort((a, b) => a - b);
    return post.rate !== null && post.rate > (rates[(rates.length - 1) >> 1]! + rates[rates.length >> 1]!) / 2;
  };
  const kinds = { ranked: [], unranked: [] } as Record<string, { rootId: string; ageMs: number; score: number }[]>;
  for (const [rootId, family] of groupBy(out, (post) => post.rootId)) {
    const isPlanned = living.some((one) => one.rootId === rootId && one.id !== rootId && one.stage === 'drafting');
    if (isPlanned || family.some(({ lasting }) => lasting === 'dated')) continue;
    const ageMs = Math.min(...family.map((post) => post.ageMs));
    const least = MIN_DAYS * DAY_MS;
    if (ageMs < least) continue;
    const standings = family.map((post) => ({ percentile: percentileOf(post), isAbove: isAboveMiddle(post) }));
    const counted = standings.flatMap(({ percentile, isAbove }) => (percentile !== null && isAbove ? percentile : []));
    const score = counted.length === 0 ? 0 : Math.max(...counted) * Math.min(1, (ageMs - least) / least);
    const hasPercentile = standings.some(({ percentile }) => percentile !== null);
    const kind = !hasPercentile ? 'unranked' : score > 0 ? 'ranked' : null;
    if (kind) kinds[kind]!.push({ rootId, ageMs, score });
  }
  const byAge = (one: { ageMs: number; rootId: string }, other: { ageMs: number; rootId: string }) =>
    other.ageMs - one.ageMs || (one.rootId < other.rootId ? -1 : 1);
  kinds.unranked!.sort(byAge);
  kinds.ranked!.sort((one, other) => other.score - one.score || byAge(one, other));
  return kinds;
}

const count = fc.option(fc.integer({ min: 0, max: 3_000 }), { nil: null, freq: 3 });
const counts = fc.record({ reach: count, views: count, likes: count, comments: count, shares: count, saves: count });
const post = fc.record({
  isAgain: fc.integer({ min: 0, max: 2 }).map((n) => n === 0),
  channel: fc.nat(2),
  isPhoto: fc.integer({ min: 0, max: 19 }).map((n) => n === 0),
  ageMinutes: fc.integer({ min: 1, max: 400 * 24 * 60 }),
  stage: fc.constantFrom('published', 'published', 'published', 'published', 'published', 'drafting', 'setAside'),
  isDeleted: fc.integer({ min: 0, max: 15 }).map((n) => n === 0),
  lasting: fc.integer({ min: 0, max: 29 }).map((n): Lasting => (n === 0 ? 'dated' : '')),
  readings: fc.array(counts as fc.Arbitrary<Partial<Counts>>, { maxLength: 3 }),
} as const);
type Drawn = typeof post extends fc.Arbitrary<infer T> ? T : never;

it('offers what working it out from all posts gives, though few of them are read', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(post, { minLength: 300, maxLength: 400 }), async (drawn) => {
      const made = await make(drawn);
      const encores = await loadEncores(world.db, { id: world.brandId, encoreDays: MIN_DAYS }, NOW, SHOWN);
      const rootOf = new Map(made.map(({ id, rootId }) => [id, rootId]));
      const kept = await world.db.rows<{ id: string; rate: number | null }>('select id, rate from posts', []);
      expect(new Map(kept.map(({ id, rate }) => [id, rate]))).toEqual(new Map(made.map(({ id, rate }) => [id, rate])));
      for (const [kind, all] of Object.entries(workedOut(made))) {
        const { shown, hasMore } = encores[kind as keyof typeof encores];
        expect([kind, hasMore]).toEqual([kind, all.length > SHOWN]);
        expect(shown.map(({ id }) => rootOf.get(id))).toEqual(all.slice(0, SHOWN).map(({ rootId }) => rootId));
        if (kind === 'ranked') shown.forEach(({ score }, at) => expect(score).toBeCloseTo(all[at]!.score, 10));
      }
    }),
    { numRuns: 12, endOnFailure: true },
  );
}, 120_000);
