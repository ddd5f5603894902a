import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { RhythmEntry } from '@/core/rhythm/entry';
import { minutesOf } from '@/core/time/days';
import { maybeDeliveryOfPost } from '@/data/delivery/deliveries';
import { changePosts } from '../calendar/changePosts';
import { publishNow, schedulePost } from '../delivery/schedule';
import { setRhythm } from '../rhythm/rhythms';
import { codeOf, makeWorld, valueOf, type TestWorld } from '../testWorld';
import { undoChange } from '../undo/undoChange';
import { loadSheet } from './loadPosts';
import { movePost } from './planPosts';
import { putAtStage } from './stages';

let world: TestWorld;
beforeEach(async () => {
  world = await makeWorld();
});
afterEach(() => world.close());

const DAY = '2026-11-26';
const ENTRY: Omit<RhythmEntry, 'id'> = {
  ...{ recurrence: { kind: 'daily', except: [6, 7] }, time: '13:00', until: '15:00', format: null, theme: '' },
  ...{ pillarId: null, from: null, to: null },
};
const asRhythm = async (...entries: Omit<RhythmEntry, 'id'>[]) =>
  valueOf(await setRhythm(world.work, world.channels.pithline, entries, []));
const planned = (time: string, date = DAY) => world.makePost('pithline', { date, time });
const schedule = async ({ id, version }: { id: string; version: number }) =>
  valueOf(await schedulePost(world.work, id, version));
const windowOf = async (id: string) => (await loadSheet(world.db, id))!.window;
const isWithin = (time: string) => time >= '13:00' && time < '15:00';

describe('a post at an opening with a window', () => {
  it('gets a minute of it when it is scheduled, which is what leaves, is shown, and stays', async () => {
    await asRhythm(ENTRY);
    const post = await planned('13:00');
    expect(await windowOf(post.id)).toEqual({ from: '13:00', until: '15:00', isChosen: false });
    const { dueAt, chosenTime } = await schedule(post);
    const scheduled = await world.post(post.id);
    expect(isWithin(scheduled.time!)).toBe(true);
    expect(scheduled.time).toBe(chosenTime);
    // In Lisbon, whose clocks stand at UTC in winter.
    expect(dueAt).toBe(`${DAY}T${chosenTime}:00.000Z`);
    expect((await maybeDeliveryOfPost(world.db, post.id))!.dueAt).toBe(dueAt);
    expect(await windowOf(post.id)).toEqual({ from: '13:00', until: '15:00', isChosen: true });

    valueOf(await putAtStage(world.work, post.id, scheduled.version, 'ready'));
    await schedule(await world.post(post.id));
    expect((await world.post(post.id)).time).toBe(chosenTime);
  });

  it('is at its window again when its scheduling is undone, and at the same minute when it is redone', async () => {
    await asRhythm(ENTRY);
    const post = await planned('13:00');
    const { chosenTime } = await schedule(post);
    valueOf(await undoChange(world.work, world.brandId, null));
    expect(await world.post(post.id)).toMatchObject({ time: '13:00', until: null, windowFrom: null });
    await schedule(await world.post(post.id));
    expect((await world.post(post.id)).time).toBe(chosenTime);
  });

  it('leaves at its very minute where that is said, at another time of the day, and at once', async () => {
    await asRhythm(ENTRY);
    const exact = await planned('13:00');
    valueOf(await movePost(world.work, exact.id, exact.version, { date: DAY, time: '13:00', until: '13:00' }));
    await schedule(await world.post(exact.id));
    expect((await world.post(exact.id)).time).toBe('13:00');
    const other = await planned('13:30');
    await schedule(other);
    expect((await world.post(other.id)).time).toBe('13:30');
    const now = await planned('13:00');
    valueOf(await publishNow(world.work, now.id, now.version));
    expect(await world.post(now.id)).toMatchObject({ date: '2026-11-23', time: '09:00', windowFrom: null });
  });

  it('skips the days that are left out', async () => {
    await asRhythm(ENTRY);
    const saturday = await planned('13:00', '2026-11-28');
    await schedule(saturday);
    expect((await world.post(saturday.id)).time).toBe('13:00');
  });
});

describe('the minutes of posts', () => {
  it('that are scheduled together keep the distance of their channel', async () => {
    await asRhythm(ENTRY);
    const posts = [await planned('13:00'), await planned('13:00'), await planned('13:00'), await planned('13:00')];
    const there = await planned('14:00');
    await schedule(there);
    const items = posts.map(({ id, version }) => ({ id, version }));
    const outcome = valueOf(await changePosts(world.work, world.brandId, items, { kind: 'stage', stage: 'scheduled' }));
    expect(outcome.refused).toEqual([]);
    const times = await Promise.all(posts.map(async ({ id }) => (await world.post(id)).time!));
    expect(times.every(isWithin)).toBe(true);
    const minutes = [...times, '14:00'].map(minutesOf).sort((one, other) => one - other);
    minutes.slice(1).forEach((minute, at) => expect(minute - minutes[at]!).toBeGreaterThanOrEqual(15));
  });

  it('are still to come where a window has begun; one that is over is refused', async () => {
    const own = await planned('13:00', '2026-11-23');
    valueOf(await movePost(world.work, own.id, own.version, { date: '2026-11-23', time: '13:00', until: '15:00' }));
    world.goTo('2026-11-23T14:57:30.000Z');
    await schedule(await world.post(own.id));
    expect(['14:58', '14:59']).toContain((await world.post(own.id)).time);
    const late = await planned('13:00', '2026-11-23');
    valueOf(await movePost(world.work, late.id, late.version, { date: '2026-11-23', time: '13:00', until: '14:00' }));
    const { version } = await world.post(late.id);
    expect(codeOf(await schedulePost(world.work, late.id, version))).toBe('past');
  });
});

it('a window of a post ends after it begins, is no shorter than the distance, and is gone with another time', async () => {
  const post = await planned('13:00');
  const move = async (to: object) => {
    const { version } = await world.post(post.id);
    return movePost(world.work, post.id, version, { date: DAY, ...to });
  };
  expect(codeOf(await move({ until: '12:00' }))).toBe('badWindow');
  expect(codeOf(await move({ until: '13:10' }))).toBe('shortWindow');
  valueOf(await move({ until: '14:00' }));
  valueOf(await move({ date: '2026-11-27' }));
  expect(await windowOf(post.id)).toEqual({ from: '13:00', until: '14:00', isChosen: false });
  valueOf(await move({ time: '16:00' }));
  expect(await windowOf(post.id)).toBeNull();
  await schedule(await world.post(post.id));
  expect(codeOf(await move({ until: '17:00' }))).toBe('scheduled');
});
