import { afterEach, beforeEach, expect, it } from 'vitest';
import { readCsv, writeCsvRows } from '@/core/exchange/csvText';
import { addDays, daysBetween } from '@/core/time/days';
import { listCovered } from '@/data/coverage/coverage';
import { oneBrand } from '@/data/brands/brands';
import { loadEncores } from '../encores/loadEncores';
import { makeWorld, START, valueOf, type TestWorld } from '../testWorld';
import { bringIn } from './importPosts';
import { previewImport } from './previewImport';

let world: TestWorld;
beforeEach(async () => void (world = await makeWorld()));
afterEach(() => world.close());

const HEADER = [
  'Date',
  'Time',
  'Platform',
  'Title',
  'Text',
  'Permalink',
  'Reached',
  'Reactions',
  'Comment count',
  'Reposts',
];
const FIRST = '2025-11-24';

/** The weeks in which a post of the year did better than the others, the best first; the last of them is too young to come again. */
const BEST = [7, 30, 19, 50] as const;

/** A year of one post a week, of which most did as usual. */
const year = (): string[][] =>
  Array.from({ length: 52 }, (_, week) => {
    const rank = BEST.indexOf(week as (typeof BEST)[number]);
    const likes = rank < 0 ? 20 + ((week * 7) % 13) : 400 - 60 * rank;
    return [
      ...[addDays(FIRST, 7 * week), '12:15', 'pithline', `Week ${week}`, `What week ${week} was about.`],
      ...[`https://pithline.example/${week}`, '1,000', String(likes), '3', '2'],
    ];
  });

it('a year of posts from elsewhere comes in with its numbers, and encores offer those that did best and are old enough', async () => {
  const table = valueOf(readCsv(writeCsvRows([HEADER, ...year()])));
  const preview = valueOf(await previewImport(world.db, world.brandId, START, table, 'year.csv', null));
  expect(preview).toMatchObject({ fresh: 52, bad: [], pastRows: 52 });
  const mapping = { ...preview.mapping, past: 'publishedElsewhere' as const };
  const brought = await bringIn(world.work, {
    ...{ brandId: world.brandId, table, fileName: 'year.csv', mapping, extent: 'whole' as const },
  });
  expect(valueOf(brought)).toMatchObject({ made: 52, bad: [] });

  const brand = await oneBrand(world.db, world.brandId);
  const { ranked, unranked } = await loadEncores(world.db, brand, START);
  expect(unranked.shown).toEqual([]);
  const isOldEnough = (week: number) => daysBetween(addDays(FIRST, 7 * week), START.slice(0, 10)) >= brand.encoreDays;
  expect(BEST.filter(isOldEnough)).toEqual([7, 30, 19]);
  const offered = ranked.shown.map(({ title }) => title);
  expect(offered).toEqual(expect.arrayContaining(['Week 7', 'Week 30', 'Week 19']));
  expect(offered[0]).toBe('Week 7');
  expect(offered).not.toContain('Week 50');
  const [latest] = await listCovered(world.db, world.brandId, 'newest', null, 1);
  expect(latest).toMatchObject({ title: 'Week 51', madeAt: `${addDays(FIRST, 7 * 51)}T12:15:00.000Z` });
  expect(ranked.shown[0]).toMatchObject({ publishedAt: '2026-01-12T12:15:00.000Z', engagement: 405, among: 52 });
});
