import { randomUUID } from 'node:crypto';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { SHIPPED_RULE_SHEETS } from '@/core/rulesheets/shipped';
import { listBrands, oneBrand } from '@/data/brands/brands';
import { listChannels, listRuleSheets } from '@/data/brands/channels';
import { listRhythms } from '@/data/rhythm/rhythms';
import { listPillars } from '@/data/brands/themes';
import { loadDesk } from '../desk/loadDesk';
import { saveView, removeView } from '../calendar/savedViews';
import { setRhythm } from '../rhythm/rhythms';
import { schedulePost } from '../delivery/schedule';
import { editBrand, makeBrand } from './brands';
import { archiveChannelOf, saveChannel } from './channels';
import { saveRuleSheet } from './ruleSheets';
import { archiveThemeOf, keepCampaign, keepPillar } from './themes';
import { changePosts } from '../calendar/changePosts';
import { codeOf, makeWorld, START, valueOf, type TestWorld } from '../testWorld';
import { listZoneMoves } from './zoneChange';
import { maybeDeliveryOfPost } from '@/data/delivery/deliveries';
import { listSavedViews } from '@/data/calendar/savedViews';

let world: TestWorld;
beforeEach(async () => void (world = await makeWorld()));
afterEach(() => world.close());

describe('brands', () => {
  const input = { name: 'Tide  House', zone: 'Atlantic/Azores', weekStart: 7, daysOff: [] };
  it('are made with an address of their own, for the manager', async () => {
    const first = valueOf(await makeBrand(world.work, input));
    const second = valueOf(await makeBrand(world.work, input));
    expect([first.slug, second.slug, first.name]).toEqual(['tide-house', 'tide-house-2', 'Tide House']);
    expect(codeOf(await makeBrand(world.otherWork, input))).toBe('notYours');
  });
  it('are changed, with days off that give no openings', async () => {
    const daysOff = [{ name: 'Rest', from: '2026-12-24', to: '2026-12-26' }];
    valueOf(await editBrand(world.work, world.brandId, { ...input, daysOff }));
    expect(await oneBrand(world.db, world.brandId)).toMatchObject({
      zone: 'Atlantic/Azores',
      weekStart: 7,
      slug: 'moor',
    });
    const [rhythm] = await listRhythms(world.db, [world.brandId]);
    expect(rhythm!.pauses).toEqual([{ from: '2026-12-24', to: '2026-12-26' }]);
  });
  it.each([
    ['badZone', { zone: 'Moor/Nowhere' }],
    ['badWeekStart', { weekStart: 8 }],
    ['emptyTitle', { name: ' ' }],
    ['backwards', { daysOff: [{ name: '', from: '2026-12-26', to: '2026-12-24' }] }],
    ['badDate', { daysOff: [{ name: '', from: '2026-02-31', to: '2026-03-01' }] }],
  ])('refuse %s', async (code, change) => {
    expect(codeOf(await editBrand(world.work, world.brandId, { ...input, ...change }))).toBe(code);
    expect((await listBrands(world.db))[0]!.zone).toBe('Europe/Lisbon');
  });
});

describe('a brand that changes its zone', () => {
  const input = { name: 'Moor', zone: 'Atlantic/Azores', weekStart: 1, daysOff: [] };
  const scheduled = async () => {
    const post = await world.makePost('pithline', { date: '2026-11-26', time: '14:30' });
    valueOf(await schedulePost(world.work, post.id, post.version));
    return post.id;
  };
  const leavesAt = async (id: string) => (await maybeDeliveryOfPost(world.db, id))!.dueAt;

  it('asks what scheduled posts keep, and changes nothing before', async () => {
    const id = await scheduled();
    expect(codeOf(await editBrand(world.work, world.brandId, input))).toBe('confirmZone');
    expect((await oneBrand(world.db, world.brandId)).zone).toBe('Europe/Lisbon');
    expect(await listZoneMoves(world.db, world.brandId, 'Atlantic/Azores', START)).toEqual([
      {
        id,
        title: 'Dome night',
        callSign: 'PL',
        date: '2026-11-26',
        time: '14:30',
        sameMoment: { date: '2026-11-26', time: '13:30' },
        sameClock: '2026-11-26T15:30:00.000Z',
      },
    ]);
  });
  it('lets them leave at the moment they would have', async () => {
    const id = await scheduled();
    valueOf(await editBrand(world.work, world.brandId, input, 'moment'));
    expect(await world.post(id)).toMatchObject({ date: '2026-11-26', time: '13:30', stage: 'scheduled' });
    expect(await leavesAt(id)).toBe('2026-11-26T14:30:00.000Z');
  });
  it('lets them leave by its new clock', async () => {
    const id = await scheduled();
    valueOf(await editBrand(world.work, world.brandId, input, 'clock'));
    expect(await world.post(id)).toMatchObject({ time: '14:30', stage: 'scheduled' });
    expect(await leavesAt(id)).toBe('2026-11-26T15:30:00.000Z');
  });
  it('keeps its zone where a post would have to leave in the past', async () => {
    const post = await world.makePost('pithline', { date: '2026-11-23', time: '10:00' });
    valueOf(await schedulePost(world.work, post.id, post.version));
    expect(codeOf(await editBrand(world.work, world.brandId, { ...input, zone: 'Asia/Tokyo' }, 'clock'))).toBe(
      'noSuchTime',
    );
    expect((await oneBrand(world.db, world.brandId)).zone).toBe('Europe/Lisbon');
  });
});

describe('channels', () => {
  const fields = async () => ({
    name: 'Second look',
    callSign: 'gl',
    color: '#2E7D50',
    account: '@second',
    aimDays: 7,
    ruleSheetId: (await listRuleSheets(world.db)).find(({ slug }) => slug === 'glassrow')!.id,
  });
  it('are made and changed', async () => {
    const { id } = valueOf(await saveChannel(world.work, world.brandId, null, await fields()));
    valueOf(
      await saveChannel(world.work, world.brandId, id, { ...(await fields()), callSign: 'SL', color: '#94304B' }),
    );
    expect((await listChannels(world.db, world.brandId)).find((channel) => channel.id === id)).toMatchObject({
      callSign: 'SL',
      color: '#94304B',
      aimDays: 7,
      sheet: { slug: 'glassrow' },
    });
  });
  it.each([
    ['sameCallSign', { callSign: 'PL' }],
    ['badCallSign', { callSign: 'P1' }],
    ['paleColour', { color: '#EEEEEE' }],
    ['badAim', { aimDays: 0 }],
    ['notFound', { ruleSheetId: randomUUID() }],
  ])('refuse %s', async (code, change) =>
    expect(codeOf(await saveChannel(world.work, world.brandId, null, { ...(await fields()), ...change }))).toBe(code),
  );
  it('are archived once nothing is scheduled on them, and keep their posts', async () => {
    const post = await world.makePost('pithline');
    valueOf(await schedulePost(world.work, post.id, post.version));
    const refused = await archiveChannelOf(world.work, world.brandId, world.channels.pithline);
    expect(refused.ok || refused.refusal.message).toContain('“Dome night” (2026-11-26)');
    const scheduled = await world.post(post.id);
    valueOf(await changePosts(world.work, world.brandId, [scheduled], { kind: 'setAside', reason: 'closing' }));
    valueOf(await archiveChannelOf(world.work, world.brandId, world.channels.pithline));
    expect((await listChannels(world.db, world.brandId)).some(({ callSign }) => callSign === 'PL')).toBe(false);
    expect((await world.post(post.id)).caption).toBe('The dome is open from eight.');
    const again = await saveChannel(world.work, world.brandId, null, { ...(await fields()), callSign: 'PL' });
    expect(codeOf(again)).toBe('sameCallSign');
  });
});

describe('rule sheets', () => {
  const copy = { ...SHIPPED_RULE_SHEETS[0]!, name: 'Our wall', slug: 'our-wall', automatic: false };
  it('are made from a copy and changed; their short name stays', async () => {
    const { id } = valueOf(await saveRuleSheet(world.work, null, copy));
    valueOf(await saveRuleSheet(world.work, id, { ...copy, hashtagLimit: 3 }));
    expect((await listRuleSheets(world.db)).find((sheet) => sheet.id === id)!.rules.hashtagLimit).toBe(3);
    expect(codeOf(await saveRuleSheet({ ...world.work, seen: 1 }, id, { ...copy, slug: 'other' }))).toBe('fixedSlug');
    expect(codeOf(await saveRuleSheet(world.work, null, copy))).toBe('sameSlug');
    expect(codeOf(await saveRuleSheet(world.work, null, { ...copy, slug: 'x', formats: [] }))).toBe('noFormat');
  });
});

describe('pillars and campaigns', () => {
  it('have names of their own and are archived', async () => {
    const { id } = valueOf(await keepPillar(world.work, world.brandId, null, { name: 'Sky', color: '#3b5f7d' }));
    expect(codeOf(await keepPillar(world.work, world.brandId, null, { name: 'Sky', color: '#3B5F7D' }))).toBe(
      'sameName',
    );
    expect(codeOf(await keepPillar(world.work, world.brandId, null, { name: 'X', color: 'blue' }))).toBe('badColour');
    valueOf(await archiveThemeOf(world.work, world.brandId, 'pillars', id));
    expect(await listPillars(world.db, [world.brandId])).toEqual([]);
    valueOf(await keepPillar(world.work, world.brandId, null, { name: 'Sky', color: '#3B5F7D' }));
    const days = { color: '#3B5F7D', from: '2026-12-01', to: '2026-11-01' };
    expect(codeOf(await keepCampaign(world.work, world.brandId, null, { name: 'C', ...days }))).toBe('backwards');
    valueOf(await keepCampaign(world.work, world.brandId, null, { name: 'C', ...days, to: null }));
  });
});

const WEEKLY = {
  recurrence: { kind: 'weekly', weekday: 5, every: 1 },
  time: '10:05',
  format: null,
  theme: ' Friday question ',
  pillarId: null,
  from: null,
  to: null,
} as const;

describe('a rhythm', () => {
  it('is set as a whole, and its openings show on the desk until they are filled', async () => {
    valueOf(await setRhythm(world.work, world.channels.pithline, [WEEKLY], []));
    const brand = await oneBrand(world.db, world.brandId);
    const channels = await listChannels(world.db, world.brandId);
    const desk = () => loadDesk(world.db, brand, channels, START);
    const first = await desk();
    expect(first.gaps.map(({ date, theme }) => [date, theme])).toEqual([
      ['2026-11-27', 'Friday question'],
      ['2026-12-04', 'Friday question'],
    ]);
    await world.makePost('pithline', { date: '2026-11-27', time: '10:05' });
    const second = await desk();
    expect(second.gaps.map(({ date }) => date)).toEqual(['2026-12-04']);
    const horizon = second.horizons.find(({ channelId }) => channelId === world.channels.pithline)!;
    expect([horizon.planned, horizon.solid]).toMatchObject([{ to: '2026-12-03' }, { to: '2026-11-26' }]);
    expect(second.week).toEqual({ all: 1, out: 0, notSent: 0, ready: 0 });
  });
  it('refuses twice the same minute, a pillar of another brand, a pause that ends before it begins', async () => {
    const set = (entries: Parameters<typeof setRhythm>[2], pauses: Parameters<typeof setRhythm>[3] = []) =>
      setRhythm(world.work, world.channels.pithline, entries, pauses);
    expect(codeOf(await set([WEEKLY, WEEKLY]))).toBe('sameMinute');
    expect(codeOf(await set([{ ...WEEKLY, pillarId: randomUUID() }]))).toBe('otherBrand');
    expect(codeOf(await set([], [{ name: '', from: '2026-12-02', to: '2026-12-01' }]))).toBe('backwards');
    expect(codeOf(await setRhythm(world.otherWork, world.otherChannelId, [WEEKLY], []))).toBe('notYours');
  });
});

describe('a saved view', () => {
  it('is kept for oneself or for all, replaced by name, and forgotten by its owner', async () => {
    const savedView = { brandId: world.brandId, name: 'Gaps', shared: false, address: 'as=lanes' };
    const seen = async (personId: string) =>
      (await listSavedViews(world.db, world.brandId, personId)).map(({ name, address }) => [name, address]);
    valueOf(await saveView(world.work, savedView));
    expect(await seen(world.otherWork.actorId)).toEqual([]);
    valueOf(await saveView(world.work, { ...savedView, shared: true, address: 'as=month' }));
    expect(await seen(world.otherWork.actorId)).toEqual([['Gaps', 'as=month']]);
    const [kept] = await listSavedViews(world.db, world.brandId, world.work.actorId);
    expect(codeOf(await removeView(world.otherWork, kept!.id))).toBe('notFound');
    valueOf(await removeView(world.work, kept!.id));
    expect(await seen(world.work.actorId)).toEqual([]);
  });
});
