import { afterEach, beforeEach, expect, it } from 'vitest';
import { oneBrand } from '@/data/brands/brands';
import { codeOf, makeWorld, valueOf, type TestWorld } from '../testWorld';
import { changePosts } from '../calendar/changePosts';
import { setRhythm } from '../rhythm/rhythms';
import { undoChange } from '../undo/undoChange';
import { loadTimetable, type TimetableAsk } from './loadDepartures';
import { proposeCarryOver } from './proposeCarryOver';
import { schedulePost } from './schedule';

let world: TestWorld;
beforeEach(async () => {
  world = await makeWorld();
  world.goTo('2026-11-09T09:00:00.000Z');
});
afterEach(() => world.close());

const EVERY_FRIDAY = {
  recurrence: { kind: 'weekly', weekday: 5, every: 1 },
  ...{ time: '16:40', format: null, theme: '', pillarId: null, from: null, to: null },
} as const;
const NOW = '2026-11-25T09:00:00.000Z';
const ASK: TimetableAsk = { view: 'week', at: '2026-11-25', channels: [], sender: null, sort: null };
const show = async (ask: Partial<TimetableAsk> = {}) => {
  const brand = await oneBrand(world.db, world.brandId);
  const { from, to, missed, lines } = await loadTimetable(world.db, brand, NOW, { ...ASK, ...ask });
  const titles = (all: typeof lines) => all.map(({ slip }) => slip.title);
  return { days: [from, to], missed: titles(missed), lines: titles(lines) };
};
async function post(channel: 'pithline' | 'homestoop', title: string, date: string, isScheduled = false) {
  const { id, version } = await world.makePost(channel, { date, time: '14:30' });
  await world.db.run('update posts set title = $2 where id = $1', [id, title]);
  if (isScheduled) valueOf(await schedulePost(world.work, id, version));
}

it('shows the days that are asked for, what was missed apart, whatever day it was of', async () => {
  await post('pithline', 'of old', '2026-11-10');
  await post('pithline', 'of Monday', '2026-11-23');
  await post('pithline', 'of Friday', '2026-11-27', true);
  await post('homestoop', 'by hand', '2026-11-28', true);
  await post('pithline', 'of next week', '2026-12-01');
  world.goTo(NOW);
  const missed = ['of old', 'of Monday'];
  expect(await show()).toEqual({ days: ['2026-11-23', '2026-11-29'], missed, lines: ['of Friday', 'by hand'] });
  expect((await show({ view: 'month', at: '2026-12-31' })).lines).toEqual(['of next week']);
  expect(await show({ view: 'today' })).toEqual({ days: ['2026-11-25', '2026-11-25'], missed, lines: [] });
  expect((await show({ at: '2026-11-10' })).lines).toEqual([]);
});

it('shows only what is ready, of some channels, by somebody, or at some status', async () => {
  await post('pithline', 'drafted', '2026-11-26');
  await post('pithline', 'scheduled', '2026-11-27', true);
  await post('homestoop', 'by hand', '2026-11-28', true);
  await post('homestoop', 'missed by hand', '2026-11-23', true);
  world.goTo(NOW);
  expect((await show({ view: 'ready' })).lines).not.toContain('drafted');
  expect((await show({ view: 'ready' })).lines).toContain('scheduled');
  expect(await show({ channels: [world.channels.homestoop] })).toMatchObject({
    missed: ['missed by hand'],
    lines: ['by hand'],
  });
  expect(await show({ channels: [world.channels.pithline] })).toMatchObject({ missed: [] });
  expect(await show({ sender: 'bimlo' })).toMatchObject({ missed: [], lines: ['drafted', 'scheduled'] });
  expect((await show({ sort: 'toSend' })).lines).toEqual(['scheduled', 'by hand']);
});

it('proposes where all goes that was missed, and moves it there in one step that can be undone', async () => {
  valueOf(await setRhythm({ ...world.work, seen: 0 }, world.channels.pithline, [EVERY_FRIDAY], []));
  await post('pithline', 'first', '2026-11-10');
  await post('pithline', 'second', '2026-11-23');
  await post('homestoop', 'by hand', '2026-11-24', true);
  world.goTo(NOW);
  const proposed = await proposeCarryOver(world.db, world.brandId, NOW);
  expect(proposed.map(({ title, to }) => [title, to])).toEqual([
    ['first', { date: '2026-11-27', time: '16:40' }],
    ['second', { date: '2026-12-04', time: '16:40' }],
    ['by hand', { date: '2026-11-26', time: '14:30' }],
  ]);
  const places = proposed.map(({ id, to }) => ({ id, ...to! }));
  const carry = () => changePosts(world.work, world.brandId, proposed, { kind: 'carry', places });
  const { label, changeId, refused } = valueOf(await carry());
  expect([label, refused]).toEqual(['Carried 3 posts over', []]);
  expect(await show()).toMatchObject({ missed: [], lines: ['by hand', 'first'] });
  expect(await proposeCarryOver(world.db, world.brandId, NOW)).toEqual([]);
  expect(valueOf(await carry()).refused).toHaveLength(3);
  valueOf(await undoChange(world.work, world.brandId, changeId));
  expect((await show()).missed).toHaveLength(3);
});

it('moves nothing that it is not told where', async () => {
  const { id, version } = await world.makePost('pithline');
  const nowhere = { kind: 'carry', places: [] } as const;
  expect(codeOf(await changePosts(world.work, world.brandId, [{ id, version }], nowhere))).toBe('noPlace');
});
