import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { archiveChannel } from '@/data/brands/channels';
import { listRunningRepeats, listRepeatPosts } from '@/data/repeats/repeats';
import { movePost } from '../posts/planPosts';
import { editPost } from '../captions/editPost';
import { setPostAside } from '../posts/stages';
import type { RepeatSaid } from '@/core/repeats/repeat';
import { keepAhead, keepAllAhead } from './makeAhead';
import { declareOut } from '../delivery/schedule';
import { undoChange } from '../undo/undoChange';
import { attachPicture } from '../media/pictures';
import { listPictures } from '@/data/media/media';
import { maybePost } from '@/data/posts/posts';
import { listStepsOf } from '@/data/prep/steps';
import { changeRepeat, endRepeat, startRepeat, type RepeatStart } from './repeats';
import { codeOf, makeWorld, valueOf, type TestWorld } from '../testWorld';

let world: TestWorld;
beforeEach(async () => void (world = await makeWorld()));
afterEach(() => world.close());

const FRIDAYS: RepeatSaid = {
  kind: 'series',
  name: 'Friday question',
  format: 'text',
  rule: { kind: 'weekly', every: 1, weekday: 5 },
  time: '10:00',
  from: '2026-11-23',
  to: null,
  ahead: 3,
  ...{ times: null, daysBefore: 0, workDays: null },
};
const start = (change: Partial<RepeatStart> = {}) =>
  startRepeat(world.work, world.brandId, {
    ...{ ...FRIDAYS, channelId: world.channels.pithline, postId: null, pieceId: null, firstNumber: 1 },
    ...change,
  });
const FROM_HERE = { fromNumber: null, writtenToo: false };
const datesOf = async (id: string) => (await listRepeatPosts(world.db, id)).map(({ date }) => date);

describe('a series', () => {
  it('leaves no week without a post when one of its posts is moved far away', async () => {
    const { id } = valueOf(await start());
    const posts = await listRepeatPosts(world.db, id);
    valueOf(await movePost(world.work, posts[2]!.id, posts[2]!.version, { date: '2027-06-01' }));
    world.goTo('2026-12-12T09:00:00.000Z');
    expect(valueOf(await keepAhead(world.work, id))).toBe(2);
    expect(await datesOf(id)).toEqual(['2026-11-27', '2026-12-04', '2026-12-18', '2026-12-25', '2027-06-01']);
  });

  it('keeps as many ahead as it is told, however seldom it comes round', async () => {
    const { made, id } = valueOf(await start({ rule: { kind: 'weekly', every: 26, weekday: 5 }, ahead: 26 }));
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
    valueOf(
      await changeRepeat(world.work, id, { ...FRIDAYS, rule: { kind: 'weekly', every: 1, weekday: 1 } }, FROM_HERE),
    );
    expect(await datesOf(id)).toEqual(['2026-11-23', '2026-11-30', '2026-12-07']);
    world.goTo('2026-12-01T09:00:00.000Z');
    valueOf(await keepAhead(world.work, id));
    expect(await datesOf(id)).toEqual(['2026-11-23', '2026-11-30', '2026-12-07', '2026-12-14', '2026-12-21']);
    expect((await listRunningRepeats(world.db))[0]!.lastRound).toBe('2026-12-21');
  });

  it('is refused a time that the clocks jump over on one of its rounds, and gets none on a later such round', async () => {
    const sundays = {
      rule: { kind: 'weekly', every: 1, weekday: 7 },
      time: '01:30',
      from: '2027-03-14',
    } as const;
    expect(codeOf(await start(sundays))).toBe('skippedTime');
    const { id } = valueOf(await start({ ...sundays, ahead: 2 }));
    expect(codeOf(await changeRepeat(world.work, id, { ...FRIDAYS, ...sundays }, FROM_HERE))).toBe('skippedTime');
    world.goTo('2027-03-22T09:00:00.000Z');
    valueOf(await keepAhead(world.work, id));
    const posts = await listRepeatPosts(world.db, id);
    expect(posts.map(({ date, time }) => [date, time])).toEqual([
      ['2027-03-14', '01:30'],
      ['2027-03-21', '01:30'],
      ['2027-03-28', null],
      ['2027-04-04', '01:30'],
    ]);
  });

  it('that is changed gives no day away that a post which was set aside, or written, stands on', async () => {
    const { id } = valueOf(await start());
    const [first, second] = await listRepeatPosts(world.db, id);
    valueOf(await setPostAside(world.work, first!.id, first!.version, 'Rain'));
    valueOf(await editPost(world.work, second!.id, second!.version, { caption: 'Written already' }));
    valueOf(await changeRepeat(world.work, id, { ...FRIDAYS, time: '12:00' }, FROM_HERE));
    const posts = await listRepeatPosts(world.db, id);
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
    const made = await world.db.rows<{ by: string }>('select created_by as by from posts where repeat_id = $1', [id]);
    expect(made.every(({ by }) => by === world.work.actorId)).toBe(true);
  });
});

describe('a repeat', () => {
  it('makes its next numbered posts ahead, and more as time goes by', async () => {
    const { id, made } = valueOf(await start({ firstNumber: 33, time: '10:05' }));
    expect(made).toBe(3);
    const rows = async () =>
      (await listRepeatPosts(world.db, id)).map(({ number, date, time, title }) => [number, date, time, title]);
    expect(await rows()).toEqual([
      [33, '2026-11-27', '10:05', 'Friday question 33'],
      [34, '2026-12-04', '10:05', 'Friday question 34'],
      [35, '2026-12-11', '10:05', 'Friday question 35'],
    ]);
    expect(valueOf(await keepAhead(world.work, id))).toBe(0);
    world.goTo('2026-12-05T09:00:00.000Z');
    expect(valueOf(await keepAhead(world.work, id))).toBe(2);
    expect((await rows()).at(-1)).toEqual([37, '2026-12-25', '10:05', 'Friday question 37']);
  });

  it('ends without taking its posts away, and makes none after its last day', async () => {
    const { id } = valueOf(await start());
    valueOf(await endRepeat(world.work, id));
    expect(await listRunningRepeats(world.db)).toEqual([]);
    expect(await datesOf(id)).toHaveLength(3);
    expect(valueOf(await start({ to: '2026-11-30' })).made).toBe(1);
  });

  it.each([
    ['badAhead', { ahead: 0 }],
    ['format', { format: 'newsletter' as const }],
    ['badTime', { time: '25:00' }],
    ['badNumber', { firstNumber: 0 }],
    ['emptyTitle', { name: '' }],
    ['notFound', { pieceId: '00000000-0000-4000-8000-000000000000' }],
    ['notFound', { postId: '00000000-0000-4000-8000-000000000000' }],
  ])('refuses %s', async (code, change) => expect(codeOf(await start(change))).toBe(code));
});

describe('numbers', () => {
  const numbered = async (id: string) =>
    (await listRepeatPosts(world.db, id)).map(({ number, date, title }) => [number, date, title]);

  it('rise with the days when a weekday is changed after a post was written, and no later week lacks a post', async () => {
    const { id } = valueOf(await start());
    const third = (await listRepeatPosts(world.db, id))[2]!;
    const early = await movePost(world.work, third.id, third.version, { date: '2026-11-25' });
    valueOf(early);
    const moved = (await listRepeatPosts(world.db, id)).find((post) => post.id === third.id)!;
    expect([moved.number, moved.title]).toEqual([1, 'Friday question 1']);
    valueOf(await editPost(world.work, third.id, moved.version, { caption: 'Why is the night dark?' }));
    valueOf(
      await changeRepeat(world.work, id, { ...FRIDAYS, rule: { kind: 'weekly', every: 1, weekday: 1 } }, FROM_HERE),
    );
    world.goTo('2026-12-01T09:00:00.000Z');
    valueOf(await keepAhead(world.work, id));
    expect(await numbered(id)).toEqual([
      [1, '2026-11-23', 'Friday question 1'],
      [2, '2026-11-25', 'Friday question 2'],
      [3, '2026-11-30', 'Friday question 3'],
      [4, '2026-12-07', 'Friday question 4'],
      [5, '2026-12-14', 'Friday question 5'],
      [6, '2026-12-21', 'Friday question 6'],
    ]);
  });

  it('are dealt out again when one post is moved past another, and as they were once that is undone', async () => {
    const { id } = valueOf(await start());
    const before = await numbered(id);
    const [first] = await listRepeatPosts(world.db, id);
    valueOf(await movePost(world.work, first!.id, first!.version, { date: '2026-12-09' }));
    expect(await numbered(id)).toEqual([
      [1, '2026-12-04', 'Friday question 1'],
      [2, '2026-12-09', 'Friday question 2'],
      [3, '2026-12-11', 'Friday question 3'],
    ]);
    valueOf(await undoChange(world.work, world.brandId, null));
    expect(await numbered(id)).toEqual(before);
  });
});

describe('a change', () => {
  const MONDAYS = { ...FRIDAYS, rule: { kind: 'weekly', every: 1, weekday: 1 } } as const;

  it('from one number on leaves those before it', async () => {
    const { id } = valueOf(await start({ ahead: 4 }));
    valueOf(await changeRepeat(world.work, id, { ...MONDAYS, ahead: 4 }, { fromNumber: 3, writtenToo: false }));
    expect(await datesOf(id)).toEqual(['2026-11-27', '2026-12-04', '2026-12-14', '2026-12-21']);
  });

  it('moves what somebody wrote only where that is wanted', async () => {
    const { id } = valueOf(await start());
    const [first] = await listRepeatPosts(world.db, id);
    valueOf(await editPost(world.work, first!.id, first!.version, { caption: 'Written already' }));
    valueOf(await changeRepeat(world.work, id, MONDAYS, { fromNumber: null, writtenToo: true }));
    expect(await datesOf(id)).toEqual(['2026-11-23', '2026-11-30', '2026-12-07']);
  });
});

describe('what comes again with its words', () => {
  /** A post that is planned, with a picture. */
  async function planned(date: string) {
    const { id } = await world.makePost('glassrow', { date, time: '18:00' }, 'Rings, seen edge on.');
    const stored = {
      ...{ sha256: 'a'.repeat(64), mime: 'image/jpeg' as const, width: 1080, height: 1350, bytes: 9_000 },
      ...{ fileName: 'rings.jpg', durationMs: null },
    };
    valueOf(await attachPicture(world.work, id, stored, 'Rings'));
    return world.post(id);
  }

  /** A post that is out, with a picture. */
  async function published(date = '2026-11-24') {
    const post = await planned(date);
    world.goTo(`${date}T19:00:00.000Z`);
    await publish(post);
    return post;
  }
  const publish = async ({ id }: { id: string }) =>
    valueOf(await declareOut(world.work, id, (await world.post(id)).version, ''));

  const EVERGREEN: Partial<RepeatStart> = {
    ...{ kind: 'evergreen', name: 'Rings', format: 'photo', time: '18:00', ahead: 2 },
    rule: { kind: 'weekly', every: 8, weekday: 2 },
  };
  const SEASON: Partial<RepeatStart> = {
    ...{ kind: 'seasonal', name: 'Geminids', format: 'photo', time: '18:00', ahead: 1, daysBefore: 3, workDays: 40 },
    rule: { kind: 'yearlyDate', month: 12, day: 13 },
  };

  it('is made from the post that it begins with, words and pictures, as it again', async () => {
    const post = await published();
    const { id, made } = valueOf(await start({ ...EVERGREEN, postId: post.id, from: '2026-11-24' }));
    expect(made).toBe(2);
    expect(await datesOf(id)).toEqual(['2026-11-24', '2027-01-19', '2027-03-16']);
    const copies = (await listRepeatPosts(world.db, id)).slice(1);
    for (const copy of copies) {
      const { caption, encoreOf, stage, publishedAt } = (await maybePost(world.db, copy.id))!;
      expect({ caption, encoreOf, stage, publishedAt }).toEqual({
        ...{ caption: post.caption, encoreOf: post.id, stage: 'drafting', publishedAt: null },
      });
      expect(await listPictures(world.db, copy.id)).toHaveLength(1);
    }
    expect(codeOf(await start({ ...EVERGREEN, postId: post.id, from: '2026-11-24' }))).toBe('repeats');
  });

  it('ends after so many times, what it began with counted', async () => {
    const post = await published();
    const { id, made } = valueOf(await start({ ...EVERGREEN, ahead: 5, times: 3, postId: post.id }));
    expect(made).toBe(2);
    world.goTo('2027-06-01T09:00:00.000Z');
    expect(valueOf(await keepAhead(world.work, id))).toBe(0);
  });

  it('comes next year without pictures, once this year’s is out, and its work stands on the desk forty days before', async () => {
    const post = await planned('2026-12-10');
    const { id, made } = valueOf(await start({ ...SEASON, postId: post.id, from: '2026-12-10' }));
    // This year’s is still to come.
    expect(made).toBe(0);
    world.goTo('2026-12-10T19:00:00.000Z');
    await publish(post);
    expect(valueOf(await keepAhead(world.work, id))).toBe(1);
    expect(valueOf(await keepAhead(world.work, id))).toBe(0);
    const next = (await listRepeatPosts(world.db, id))[1]!;
    expect([next.number, next.date, next.title]).toEqual([2, '2027-12-10', 'Geminids']);
    expect((await maybePost(world.db, next.id))!.caption).toBe(post.caption);
    expect(await listPictures(world.db, next.id)).toEqual([]);
    const steps = await listStepsOf(world.db, [next.id]);
    expect(steps.find(({ title }) => title === 'Begin: Geminids')!.day).toBe('2027-10-31');
    expect(steps.length).toBeGreaterThan(1);
  });

  it('is made for no day after the season’s', async () => {
    world.goTo('2026-12-12T09:00:00.000Z');
    const { id } = valueOf(await start({ ...SEASON, from: '2026-12-01' }));
    expect(await datesOf(id)).toEqual(['2027-12-10']);
  });

  it('follows a date to plan around, and makes none while its next day is not known', async () => {
    const season: Partial<RepeatStart> = { ...SEASON, rule: { kind: 'knownDate', title: 'Dark sky week' } };
    const { id, made } = valueOf(await start(season));
    expect(made).toBe(0);
    await world.db.run(
      `with f as (insert into date_files (id, brand_id, name, file_name, imported_at, reckoned_to)
         values (gen_random_uuid(), $1, 'Sky', 'sky.ics', now(), '2028-12-31') returning id)
       insert into known_dates (brand_id, file_id, title, from_date, to_date)
         select $1, f.id, 'Dark sky week', '2027-04-05', '2027-04-11' from f`,
      [world.brandId],
    );
    expect(valueOf(await keepAhead(world.work, id))).toBe(1);
    expect(await datesOf(id)).toEqual(['2027-04-02']);
  });
});
