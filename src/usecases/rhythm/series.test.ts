import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { archiveChannel } from '@/data/brands/channels';
import { listRunningSeries, listSeriesPosts } from '@/data/rhythm/series';
import { movePost } from '../posts/planPosts';
import { editPost } from '../captions/editPost';
import { setPostAside } from '../posts/stages';
import { changeSeries, keepAhead, keepAllAhead, startSeries, type SeriesInput } from './series';
import { codeOf, makeWorld, valueOf, type TestWorld } from '../testWorld';

let world: TestWorld;
beforeEach(async () => void (world = await makeWorld()));
afterEach(() => world.close());

const FRIDAYS: SeriesInput = {
  name: 'Friday question',
  format: 'text',
  recurrence: { kind: 'weekly', every: 1, weekday: 5 },
  time: '10:00',
  from: '2026-11-23',
  to: null,
  ahead: 3,
};
const start = (input: Partial<SeriesInput> = {}) =>
  startSeries(world.work, world.brandId, world.channels.pithline, { ...FRIDAYS, ...input, firstNumber: 1 });
const datesOf = async (id: string) => (await listSeriesPosts(world.db, id, 1)).map(({ date }) => date);

describe('a series', () => {
  it('leaves no week without a post when one of its posts is moved far away', async () => {
    const { id } = valueOf(await start());
    const posts = await listSeriesPosts(world.db, id, 1);
    valueOf(await movePost(world.work, posts[2]!.id, posts[2]!.version, { date: '2027-06-01' }));
    world.goTo('2026-12-12T09:00:00.000Z');
    expect(valueOf(await keepAhead(world.work, id))).toBe(2);
    expect(await datesOf(id)).toEqual(['2026-11-27', '2026-12-04', '2027-06-01', '2026-12-18', '2026-12-25']);
  });

  it('keeps as many ahead as it is told, however seldom it comes round', async () => {
    const { made, id } = valueOf(await start({ recurrence: { kind: 'weekly', every: 26, weekday: 5 }, ahead: 26 }));
    expect(made).toBe(26);
    expect(await datesOf(id)).toHaveLength(26);
  });

  it('makes none on an archived channel', async () => {
    const { id } = valueOf(await start());
    await archiveChannel(world.db, world.channels.pithline, '2026-11-24T00:00:00.000Z');
    world.goTo('2027-01-12T09:00:00.000Z');
    expect(valueOf(await keepAhead(world.work, id))).toBe(0);
  });

  it('that is changed goes on after its new rounds', async () => {
    const { id } = valueOf(await start());
    valueOf(await changeSeries(world.work, id, { ...FRIDAYS, recurrence: { kind: 'weekly', every: 1, weekday: 1 } }));
    expect(await datesOf(id)).toEqual(['2026-11-23', '2026-11-30', '2026-12-07']);
    world.goTo('2026-12-01T09:00:00.000Z');
    valueOf(await keepAhead(world.work, id));
    expect(await datesOf(id)).toEqual(['2026-11-23', '2026-11-30', '2026-12-07', '2026-12-14', '2026-12-21']);
    expect((await listRunningSeries(world.db))[0]!.lastRound).toBe('2026-12-21');
  });

  it('is refused a time that the clocks jump over on one of its rounds, and gets none on a later such round', async () => {
    const sundays = {
      recurrence: { kind: 'weekly', every: 1, weekday: 7 },
      time: '01:30',
      from: '2027-03-14',
    } as const;
    expect(codeOf(await start(sundays))).toBe('skippedTime');
    const { id } = valueOf(await start({ ...sundays, ahead: 2 }));
    expect(codeOf(await changeSeries(world.work, id, { ...FRIDAYS, ...sundays }))).toBe('skippedTime');
    world.goTo('2027-03-22T09:00:00.000Z');
    valueOf(await keepAhead(world.work, id));
    const posts = await listSeriesPosts(world.db, id, 1);
    expect(posts.map(({ date, time }) => [date, time])).toEqual([
      ['2027-03-14', '01:30'],
      ['2027-03-21', '01:30'],
      ['2027-03-28', null],
      ['2027-04-04', '01:30'],
    ]);
  });

  it('that is changed gives no day away that a post which was set aside, or written, stands on', async () => {
    const { id } = valueOf(await start());
    const [first, second] = await listSeriesPosts(world.db, id, 1);
    valueOf(await setPostAside(world.work, first!.id, first!.version, 'Rain'));
    valueOf(await editPost(world.work, second!.id, second!.version, { caption: 'Written already' }));
    valueOf(await changeSeries(world.work, id, { ...FRIDAYS, time: '12:00' }));
    const posts = await listSeriesPosts(world.db, id, 1);
    const onDay = (day: string) => posts.filter(({ date }) => date === day);
    for (const day of ['2026-11-27', '2026-12-04']) expect(onDay(day)).toHaveLength(1);
    expect(posts.find((post) => post.id === first!.id)).toMatchObject({ date: '2026-11-27', stage: 'setAside' });
    expect(posts.find((post) => post.id === second!.id)).toMatchObject({ date: '2026-12-04' });
  });

  it('that breaks, or is refused, stops no other', async () => {
    const ids = [valueOf(await start()).id, valueOf(await start({ name: 'Another question' })).id];
    world.goTo('2026-12-05T09:00:00.000Z');
    let broken = 0;
    const db = {
      ...world.db,
      transaction: (async (act) => {
        if (broken++ === 0) throw new Error('no room');
        return world.db.transaction(act);
      }) as typeof world.db.transaction,
    };
    const told: string[] = [];
    const { made, failed } = await keepAllAhead({ ...world.work, db }, (_error, id) => told.push(id));
    expect([made, failed, told.length]).toEqual([2, 1, 1]);
    expect(ids).toContain(told[0]);
  });

  it('is made by whoever starts it, and its posts by Bimlo for its owner', async () => {
    const { id } = valueOf(await start());
    const made = await world.db.rows<{ by: string }>('select created_by as by from posts where series_id = $1', [id]);
    expect(made.every(({ by }) => by === world.work.actorId)).toBe(true);
  });
});
