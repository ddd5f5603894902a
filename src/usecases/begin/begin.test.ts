import { randomUUID } from 'node:crypto';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { suggestRhythm } from '@/core/rhythm/suggest';
import { SHIPPED_RULE_SHEETS } from '@/core/rulesheets/shipped';
import { listBrands, oneBrand } from '@/data/brands/brands';
import { listRuleSheets } from '@/data/brands/channels';
import type { Db } from '@/data/database/db';
import { openTestDb } from '@/data/database/testDb';
import { listPeopleOfBrand } from '@/data/people/people';
import { loadNextOpenings } from '../rhythm/nextOpenings';
import { setRhythm } from '../rhythm/rhythms';
import { codeOf, makeWorld, START, valueOf } from '../testWorld';
import { signIn } from '../signIn/signIn';
import { begin, isEmpty, type Beginning } from './begin';

const HOUSE: Beginning = {
  person: 'Ada',
  password: '',
  brand: { name: 'Harbour Library', zone: 'Europe/Lisbon', weekStart: 7 },
};

const FROM = { address: '127.0.0.1', agent: 'test' };

let db: Db;
const work = () => ({ db, clock: { now: () => START }, ids: () => randomUUID() });
beforeEach(async () => void (db = await openTestDb()));
afterEach(() => db.close());

describe('an empty folder', () => {
  it('is begun once: a manager, their brand posted for by hand, and the rule sheets that ship', async () => {
    expect(await isEmpty(db)).toBe(true);
    const { slug, personId } = valueOf(await begin(work(), HOUSE, FROM, true));
    expect(slug).toBe('harbour-library');
    expect(await isEmpty(db)).toBe(false);
    const [brand] = await listBrands(db);
    expect(brand).toMatchObject({ name: 'Harbour Library', weekStart: 7, delivers: 'byHand' });
    expect(await listPeopleOfBrand(db, brand!.id)).toMatchObject([{ id: personId, name: 'Ada', role: 'manager' }]);
    expect(await listRuleSheets(db)).toHaveLength(SHIPPED_RULE_SHEETS.length);
    expect(codeOf(await begin(work(), { ...HOUSE, person: 'Eve' }, FROM, true))).toBe('begun');
    expect(await listBrands(db)).toHaveLength(1);
  });

  it('is begun by one of two who come at once', async () => {
    const both = await Promise.all([
      begin(work(), HOUSE, FROM, true),
      begin(work(), { ...HOUSE, person: 'Eve' }, FROM, true),
    ]);
    expect(both.filter(({ ok }) => ok)).toHaveLength(1);
    expect(await listBrands(db)).toHaveLength(1);
  });

  it.each([
    ['emptyTitle', { person: ' ' }],
    ['emptyTitle', { brand: { ...HOUSE.brand, name: '' } }],
    ['badZone', { brand: { ...HOUSE.brand, zone: 'Moor/Nowhere' } }],
    ['badWeekStart', { brand: { ...HOUSE.brand, weekStart: 9 } }],
  ])('stays empty where it is refused: %s', async (code, change) => {
    expect(codeOf(await begin(work(), { ...HOUSE, ...change }, FROM, true))).toBe(code);
    expect(await isEmpty(db)).toBe(true);
    expect(await listRuleSheets(db)).toEqual([]);
  });
});

describe('the first password', () => {
  it('is wanted where other machines reach this Bimlo, and is not one that is guessed', async () => {
    expect(codeOf(await begin(work(), HOUSE, FROM, false))).toBe('noPassword');
    expect(codeOf(await begin(work(), { ...HOUSE, password: 'short' }, FROM, true))).toBe('shortPassword');
    expect(await isEmpty(db)).toBe(true);
    valueOf(await begin(work(), { ...HOUSE, password: 'three grey herons' }, FROM, false));
    const signedIn = await signIn(work(), { name: 'ada', password: 'three grey herons' }, FROM);
    expect(signedIn.ok).toBe(true);
  });
});

describe('the next openings', () => {
  it('are those of each channel that nothing fills, the soonest first, from now on', async () => {
    const world = await makeWorld();
    const channel = world.channels.pithline;
    const brand = await oneBrand(world.db, world.brandId);
    expect(await loadNextOpenings(world.db, brand, START)).toEqual([]);
    valueOf(await setRhythm({ ...world.work, seen: 0 }, channel, suggestRhythm(7, 0), []));
    const openings = await loadNextOpenings(world.db, brand, START);
    expect(openings).toHaveLength(3);
    expect(openings.every(({ channelId }) => channelId === channel)).toBe(true);
    expect(`${openings[0]!.date}T${openings[0]!.time}` > START.slice(0, 16)).toBe(true);
    await world.makePost('pithline', { date: openings[0]!.date, time: openings[0]!.time });
    expect((await loadNextOpenings(world.db, brand, START))[0]).toEqual(openings[1]);
    await world.close();
  });
});
