import { daysOf } from '@/core/rhythm/horizon';
import { addDays } from '@/core/time/days';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { listBrands, type Brand } from '@/data/brands/brands';
import { listChannels } from '@/data/brands/channels';
import type { Db } from '@/data/database/db';
import { listIdeas } from '@/data/pieces/pieces';
import { listPostsBetween, listUndatedPosts } from '@/data/posts/postLines';
import { existsDeedOfPerson } from '@/data/posts/history';
import { openTestDb } from '@/data/database/testDb';
import { openNetworkStore, type NetworkStore } from '@/standins/network/store';
import { lookInto } from '@/standins/network/lookInto';
import { whyRefused } from '@/standins/network/rules';
import { NO_FILTER } from '@/core/calendar/filter';
import { loadCalendar, loadHorizons } from '@/usecases/calendar/loadCalendar';
import { loadSheet } from '@/usecases/posts/loadPosts';
import { loadDepartures } from '@/usecases/delivery/loadDepartures';
import { readScenario } from './read';
import { demoDay, seedDemo } from './seed';

const NOW = '2026-11-25T13:00:00.000Z';
const TODAY = '2026-11-25';

let db: Db;
let folder: string;
let networks: NetworkStore;
let moor: Brand;
let ferry: Brand;

beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'bimlo-seed-'));
  db = await openTestDb();
  networks = await openNetworkStore(join(folder, 'networks'));
  await seedDemo(db, folder, networks, NOW);
  [moor, ferry] = (await listBrands(db)) as [Brand, Brand];
}, 60_000);
afterAll(async () => {
  await networks.close();
  await db.close();
  await rm(folder, { recursive: true });
});

const scopeOf = (brand: Brand) => ({ brandIds: [brand.id], filter: NO_FILTER, today: TODAY });
const posts = (brand: Brand, from = -210, to = 40) =>
  listPostsBetween(db, scopeOf(brand), addDays(TODAY, from), addDays(TODAY, to));

describe('the demo', () => {
  it('has two brands with eight and five channels', async () => {
    expect([moor.name, ferry.name]).toEqual(['Fennel Moor Observatory', 'Tidewrack Ferry']);
    expect([(await listChannels(db, moor.id)).length, (await listChannels(db, ferry.id)).length]).toEqual([8, 5]);
  });

  it('reaches 200 days back and four weeks ahead, for each brand', async () => {
    for (const brand of [moor, ferry]) {
      const days = (await posts(brand)).map((post) => post.date!);
      expect(days[0]! <= addDays(TODAY, -195)).toBe(true);
    }
    expect((await posts(moor)).at(-1)!.date! >= addDays(TODAY, 24)).toBe(true);
  });

  it('has posts in every stage but set aside, ideas, and undated posts', async () => {
    const stages = new Set((await posts(moor)).map((post) => post.stage));
    expect([...stages].sort()).toEqual(['drafting', 'production', 'published', 'ready', 'scheduled', 'signOff']);
    expect((await listIdeas(db, [moor.id], 50)).length).toBeGreaterThan(8);
    expect((await listIdeas(db, [moor.id], 50, true)).length).toBe(1);
    expect((await listUndatedPosts(db, scopeOf(moor), 50)).length).toBeGreaterThan(1);
  });

  it('leaves nothing planned before now unpublished, but a failure and a hand-over of today', async () => {
    const late = (await posts(moor)).filter(
      (post) => `${post.date}T${post.time}` < '2026-11-25T13:00' && post.stage !== 'published',
    );
    expect(late.map((post) => [post.title, post.date, post.delivery?.mode, post.delivery?.state])).toEqual([
      ['Jupiter rises 17:12', TODAY, 'automatic', 'failed'],
      ['Come up on Saturday', TODAY, 'byHand', 'waiting'],
    ]);
  });

  it('publishes nothing that a network would have refused, and the networks hold all of it', async () => {
    const published = [...(await posts(moor)), ...(await posts(ferry))].filter((post) => post.stage === 'published');
    const automatic = published.filter((post) => post.delivery!.mode === 'automatic');
    expect(automatic.length).toBeGreaterThan(600);
    for (const post of automatic.slice(0, 100)) {
      const [, , network, id] = post.address.split('/');
      const held = networks.one(network!, id!);
      for (const picture of held!.parcel.pictures) expect(networks.hasPicture(picture.sha256)).toBe(true);
      const looked = await Promise.all(
        held!.parcel.pictures.map(({ sha256 }) => lookInto(networks.picturePath(sha256))),
      );
      expect(looked).not.toContain(null);
      expect(
        whyRefused(
          held!.parcel,
          // The demo keeps the originals beside the recipes; what left was made after those.
          looked.map((measures, index) => ({ ...measures!, ...held!.parcel.pictures[index]!.recipe })),
        ),
      ).toBeNull();
    }
    const counts = Object.values(networks.counts()).reduce((sum, count) => sum + count, 0);
    expect(counts).toBe(automatic.length);
  });

  it('is nobody’s doing, so that it may be dated anew', async () => {
    expect(await existsDeedOfPerson(db)).toBe(false);
    expect(demoDay(NOW)).toBe(TODAY);
    expect(demoDay('2026-11-25T23:59:59.000Z')).toBe(TODAY);
  });

  it('names only hosts that cannot exist', () => {
    const scenario = readScenario();
    const texts = scenario.brands.flatMap(({ slug }) => scenario.posts(slug).flatMap((row) => [row.link, row.caption]));
    const hosts = texts.flatMap((text) => [...text.matchAll(/https?:\/\/([^/\s]+)/g)].map((match) => match[1]!));
    expect(hosts.length).toBeGreaterThan(50);
    expect(hosts.filter((host) => !host.endsWith('.example'))).toEqual([]);
  });
});

describe('the views of the demo', () => {
  it('show the month with a slip for each post of the weeks shown', async () => {
    const channels = await listChannels(db, moor.id);
    const ask = { arrangement: 'month', date: '2026-11-01', weeks: 1, filter: NO_FILTER } as const;
    const { weeks, slips } = await loadCalendar(db, [moor], channels, ask, NOW);
    const [first, last] = [weeks[0]![0]!.date, weeks.at(-1)![6]!.date];
    expect(slips.filter((slip) => slip.date !== null).length).toBe(
      (await listPostsBetween(db, scopeOf(moor), first, last)).length,
    );
    expect(slips.every((slip) => slip.callSign.length === 2)).toBe(true);
    const photo = slips.find((slip) => slip.format === 'photo' && slip.stage === 'published')!;
    expect(photo.thumb).toMatch(/^[0-9a-f]{64}$/);
  });

  it('show departures in order, with what can be done about each', async () => {
    const board = await loadDepartures(db, moor, NOW);
    const today = board.filter(({ slip }) => slip.date === TODAY);
    expect(today.map(({ slip }) => slip.time)).toEqual([...today.map(({ slip }) => slip.time)].sort());
    expect(today.find(({ fitness }) => fitness === 'failed')?.reason).toBe('this account may not post that');
    expect(today.find(({ fitness }) => fitness === 'handOver')?.handOver?.pictures).toHaveLength(1);
    expect(board.every(({ slip }) => slip.date! >= TODAY)).toBe(true);
  });

  it('open a sheet with its piece, pictures and copy', async () => {
    const post = (await posts(moor, 0, 6)).find(
      (candidate) => candidate.stage === 'scheduled' && candidate.pictures.length > 0,
    )!;
    const sheet = (await loadSheet(db, post.id))!;
    expect(sheet).toMatchObject({
      id: post.id,
      stage: 'scheduled',
      deleted: false,
      delivery: { differs: false, copy: { caption: post.caption } },
    });
    expect(sheet.pieceTitle).not.toBe('');
    expect(sheet.pictures[0]!.alt).not.toBe('');
  });

  it('put ideas and undated posts into the tray', async () => {
    const ask = { arrangement: 'stages', date: TODAY, weeks: 1, filter: NO_FILTER } as const;
    const { ideas, slips } = await loadCalendar(db, [ferry], await listChannels(db, ferry.id), ask, NOW);
    expect(ideas.map(({ title }) => title)).toContain('What fits on deck');
    expect(slips.some((slip) => slip.stage === 'drafting')).toBe(true);
  });

  it('have openings that are not filled, and horizons that differ', async () => {
    const channels = await listChannels(db, moor.id);
    const { horizons, openings } = await loadHorizons(db, moor, channels, NOW);
    expect(openings.length).toBeGreaterThan(100);
    expect(horizons.every((horizon) => horizon.planned.kind !== 'noRhythm')).toBe(true);
    const lengths = new Set(horizons.map(({ planned }) => daysOf(planned)));
    expect(lengths.size).toBeGreaterThan(3);
    expect(Math.min(...[...lengths].map(Number))).toBeLessThan(7);
  });
});
