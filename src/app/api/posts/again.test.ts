import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { loadEncores } from '@/usecases/encores/loadEncores';
import type { ChosenAgain } from '@/usecases/encores/makeAgain';
import type { MadeFanOut } from '@/usecases/fanOut/makeFanOut';
import type { AgainAsk, AgainPost } from '@/usecases/encores/planAgain';
import { insertReadings } from '@/data/results/readings';
import { closePool } from '@/data/pool/pool';
import type { Post } from '@/data/posts/posts';
import { setRhythm } from '@/usecases/rhythm/rhythms';
import { valueOf } from '@/usecases/testWorld';
import { ask, makeApp, refusalIn, type TestApp } from '../testApp';
import { POST as undo } from '../calendar/undo/route';
import { POST as make } from './[id]/again/route';
import { POST as preview } from './[id]/again/preview/route';
import { POST as lasts } from './[id]/lasting/route';

const CAPTION = 'The dome is open from eight. Saturn stands high in the south. Bring a warm coat with you.';
let app: TestApp;
let post: Post;
beforeAll(async () => void (app = await makeApp()));
afterAll(async () => {
  await closePool();
  await app.close();
});
beforeEach(async () => {
  await app.db.run(`update posts set deleted_at = now() where deleted_at is null`);
  post = await publishedLongAgo();
});

/** A post published sixteen weeks ago: planned ahead, then put there as if time had passed. */
async function publishedLongAgo(caption = CAPTION, at = '2026-08-03T08:30:00Z'): Promise<Post> {
  const made = await app.makePost('glassrow', { date: '2026-11-26', time: '14:30' }, caption);
  await app.db.run(
    `update posts set stage = 'published', published_at = $2, plan_date = $3, plan_time = '09:30' where id = $1`,
    [made.id, at, at.slice(0, 10)],
  );
  return app.post(made.id);
}

const ASK = (): AgainAsk => ({
  channelIds: [post.channelId],
  times: 1,
  everyDays: 14,
  from: null,
  isDated: true,
  isReopened: false,
  isFitted: true,
});
const shown = async (part: Partial<AgainAsk> = {}) =>
  (await ask<AgainPost[]>(preview, { params: { id: post.id }, body: { ask: { ...ASK(), ...part } } })).body;
const chosenOf = (posts: AgainPost[]): ChosenAgain[] =>
  posts.map(({ key, caption, date, time }) => ({ key, caption, date, time, isMoved: false }));
const making = (posts: ChosenAgain[], part: Partial<AgainAsk> = {}) =>
  ask<MadeFanOut>(make, { params: { id: post.id }, body: { ask: { ...ASK(), ...part }, posts } });
const encores = async () => loadEncores(app.db, { id: app.brandId, encoreDays: 60 }, app.work.clock.now());

/** Why something was refused. */
const codeOf = async (answered: Promise<unknown>) => refusalIn((await answered) as never)?.[0];

describe('a post used again', () => {
  it('is shown with its date and text before it is made; a channel without a rhythm takes the next day', async () => {
    const [one] = await shown();
    expect(one).toMatchObject({ channelId: post.channelId, format: 'photo', caption: CAPTION, origin: 'asItWas' });
    expect(one).toMatchObject({ date: '2026-11-24', time: null, sameOn: null });
  });

  it('goes several times into openings, each with another first line, apart as asked', async () => {
    const weekly = (weekday: number) => ({
      ...{ recurrence: { kind: 'weekly' as const, weekday, every: 1 }, time: '09:30', format: null, theme: '' },
      ...{ pillarId: null, from: null, to: null },
    });
    valueOf(await setRhythm({ ...app.work, seen: 0 }, post.channelId, [weekly(2), weekly(5)], []));
    const posts = await shown({ times: 3, everyDays: 10, isReopened: true });
    expect(posts.map(({ date, time }) => `${date} ${time}`)).toEqual([
      '2026-11-24 09:30',
      '2026-12-04 09:30',
      '2026-12-15 09:30',
    ]);
    expect(new Set(posts.map(({ caption }) => caption.split('\n')[0])).size).toBe(3);
    expect(posts.map(({ caption }) => caption.split('\n')[0])).not.toContain(CAPTION.split('\n')[0]);
    const made = (await making(chosenOf(posts), { times: 3, everyDays: 10, isReopened: true })).body;
    expect(made.postIds).toHaveLength(3);
    const again = await app.post(made.postIds[1]!);
    expect(again).toMatchObject({ stage: 'drafting', encoreOf: post.id, date: '2026-12-04', publishedAt: null });
    expect(again.caption).toBe(posts[1]!.caption);
    const steps = await app.db.rows<{ title: string }>('select title from steps where post_id = $1', [again.id]);
    expect(steps.map(({ title }) => title)).toContain('Check the draft');
  });

  it('goes to other channels fitted to their rules, or as it is and marked', async () => {
    post = await publishedLongAgo(`${'A long sentence about the dome at night. '.repeat(30)}The end.`);
    const to = { channelIds: [app.channels.pithline], isDated: false };
    const [fitted] = await shown(to);
    expect(fitted!.caption.length).toBeLessThan(post.caption.length);
    expect(fitted).toMatchObject({ format: 'photo', date: null });
    expect(fitted!.notes[0]).toMatch(/^Cut to the \d+ that fit\.$/);
    const [whole] = await shown({ ...to, isFitted: false });
    expect(whole!.caption).toBe(post.caption);
    expect(whole!.notes.join(' ')).toMatch(/Pithline takes 320/);
    const { body } = await making(chosenOf([fitted!]), to);
    expect(await app.post(body.postIds[0]!)).toMatchObject({ encoreOf: null, date: null, time: null });
  });

  it('warns where its channel has the same text within 30 days', async () => {
    await app.makePost('glassrow', { date: '2026-12-10', time: '09:30' }, CAPTION);
    expect((await shown({ from: '2026-12-01' }))[0]!.sameOn).toBe('2026-12-10');
    expect((await shown({ from: '2027-02-01' }))[0]!.sameOn).toBeNull();
    expect((await shown({ from: '2026-12-01', isReopened: true }))[0]!.sameOn).toBeNull();
  });

  it('is undone in one step', async () => {
    const { changeId, postIds } = (await making(chosenOf(await shown()))).body;
    await ask(undo, { body: { brandId: app.brandId, changeId } });
    expect((await app.post(postIds[0]!)).deletedAt).not.toBeNull();
  });

  it('is refused for other brands’ channels, too many times, bad dates, twice the same, and once a date has changed', async () => {
    const [one] = chosenOf(await shown());
    expect(await codeOf(making([one!], { channelIds: [app.otherChannelId] }))).toBe('foreignChannel');
    expect(await codeOf(making([one!], { channelIds: [] }))).toBe('noChannel');
    expect(await codeOf(making([one!], { times: 6 }))).toBe('badTimes');
    expect(await codeOf(making([one!], { everyDays: 0 }))).toBe('badDays');
    expect(await codeOf(making([one!, one!]))).toBe('changed');
    expect(await codeOf(making([{ ...one!, date: '2026-11-30' }]))).toBe('changed');
    expect((await making([{ ...one!, date: '2026-11-01', isMoved: true }])).status).toBe(422);
    expect(await codeOf(making([]))).toBe('nothing');
    app.actAs(app.otherWork.actorId);
    await app.db.run('delete from brand_people where person_id = $1', [app.otherWork.actorId]);
    expect(await codeOf(making([one!]))).toBe('notYours');
    app.actAs(app.work.actorId);
  });
});

describe('encores', () => {
  const numbers = async (id: string, likes: number) =>
    insertReadings(app.db, [
      {
        ...{
          postId: id,
          at: '2026-09-01T10:00:00Z',
          reach: 1000,
          views: null,
          likes,
          comments: 0,
          shares: 0,
          saves: 0,
        },
        ...{ clicks: null, follows: null, watchSeconds: null },
      },
    ]);

  it('are what did well long ago, with what was said and how it did, until they are planned again', async () => {
    for (const likes of [10, 20, 30, 40]) await numbers((await publishedLongAgo()).id, likes);
    await numbers(post.id, 90);
    const first = await encores();
    expect(first.ranked.shown.map(({ engagement }) => engagement)).toEqual([90, 40]);
    expect(first.ranked.shown[0]).toMatchObject({
      ...{ id: post.id, caption: CAPTION, rate: { value: 0.09, of: 'reach' }, percentile: 1, among: 5 },
    });
    await making(chosenOf(await shown()));
    expect((await encores()).ranked.shown.map(({ id }) => id)).not.toContain(post.id);
  });

  it('are never what is dated, until it is no more, whichever post of its family is said so', async () => {
    const later = await publishedLongAgo(CAPTION, '2026-08-20T08:30:00Z');
    await app.db.run('update posts set encore_of = $2 where id = $1', [later.id, post.id]);
    const shownIds = async () => (await encores()).unranked.shown.map(({ id }) => id);
    expect(await shownIds()).toEqual([later.id]);
    const say = (lasting: string) => ask(lasts, { params: { id: later.id }, body: { lasting } });
    await say('dated');
    expect(await shownIds()).toEqual([]);
    expect((await app.post(post.id)).lasting).toBe('dated');
    expect(await codeOf(say('evergreen'))).toBe('badField');
    await say('');
    expect(await shownIds()).toEqual([later.id]);
  });
});
