import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { maybeDeliveryOfPost, retimeDeliveries, withdrawDeliveries } from '@/data/delivery/deliveries';
import { listMaybeOut } from '@/data/delivery/doubts';
import { listWordsVersions } from '@/data/posts/wordsVersions';
import { askUnsure } from './askNetworks';
import { changePosts } from '../calendar/changePosts';
import { deliverDue } from './testDeliver';
import { leaveAsSent, sendAnew } from './notSent';
import { movePost } from '../posts/planPosts';
import { declareOut, publishNow, sayNotOut, schedulePost, tryAgain } from './schedule';
import { deletePost, setPostAside } from '../posts/stages';
import { codeOf, deliveryWork, fakeNetwork, makeWorld, valueOf, type FakeNetwork, type TestWorld } from '../testWorld';
import { loadSheet } from '../posts/loadPosts';
import { loadDepartures } from './loadDepartures';
import { editPost } from '../captions/editPost';
import { oneBrand } from '@/data/brands/brands';

let world: TestWorld;
let network: FakeNetwork;
beforeEach(async () => {
  world = await makeWorld();
  network = fakeNetwork();
});
afterEach(() => world.close());

const DUE = '2026-11-26T14:30:00.000Z';
const deliver = () => deliverDue(deliveryWork(world, network));
const ask = () => askUnsure(deliveryWork(world, network));
const current = async (id: string) => (await maybeDeliveryOfPost(world.db, id))!;
const versionOf = async (id: string) => (await world.post(id)).version;
const OLD = 'The dome is open from eight.';

/** A post that is out, though four tries in a row got no answer and nobody could ask. */
async function outUnknown(): Promise<string> {
  const post = await world.makePost('pithline');
  valueOf(await schedulePost(world.work, post.id, post.version));
  network.answers = ['acceptThenSilent'];
  network.isMute = true;
  for (const at of [DUE, '2026-11-26T14:31:00.000Z', '2026-11-26T14:36:00.000Z', '2026-11-26T14:51:00.000Z']) {
    world.goTo(at);
    await deliver();
  }
  expect(await current(post.id)).toMatchObject({ state: 'unknown', unsure: true });
  return post.id;
}

/** A post that is not out, though four tries got no answer. */
async function notOutUnknown(): Promise<string> {
  const id = await outUnknown();
  network.accepted.clear();
  network.held.length = 0;
  return id;
}

describe('what may be out', () => {
  it('is never shown as failed, and is found after 5 minutes by itself', async () => {
    const id = await outUnknown();
    const brand = await oneBrand(world.db, world.brandId);
    const now = world.work.clock.now();
    expect((await loadDepartures(world.db, brand, now)).map(({ fitness }) => fitness)).toEqual(['unknown']);
    network.isMute = false;
    world.goTo('2026-11-26T14:55:59.000Z');
    expect(await ask()).toBe(0);
    world.goTo('2026-11-26T14:56:00.000Z');
    expect(await ask()).toBe(1);
    expect(await world.post(id)).toMatchObject({ stage: 'published', caption: OLD, date: '2026-11-26', time: '14:30' });
    expect(await ask()).toBe(0);
  });

  it('is asked about after 5, 15 and 60 minutes, then daily for a week, then left to a person', async () => {
    const id = await outUnknown();
    const waits: number[] = [];
    let at = Date.parse('2026-11-26T14:51:00.000Z');
    for (;;) {
      const { askAt } = await current(id);
      if (askAt === null) break;
      waits.push((Date.parse(askAt) - at) / 60_000);
      at = Date.parse(askAt);
      world.goTo(askAt);
      expect(await ask()).toBe(1);
    }
    expect(waits).toEqual([5, 15, 60, ...Array.from({ length: 7 }, () => 1_440)]);
    expect(await current(id)).toMatchObject({ state: 'unknown', unsure: true });
    expect((await loadSheet(world.db, id))!.maybeOut).toMatchObject([{ network: 'pithline', isAsked: false }]);
  });

  it('has failed once the network says that it is not out, and can be tried again', async () => {
    const id = await notOutUnknown();
    network.isMute = false;
    world.goTo('2026-11-26T14:56:00.000Z');
    await ask();
    expect(await current(id)).toMatchObject({ state: 'failed', unsure: false });
    valueOf(await tryAgain(world.work, id, await versionOf(id)));
    await deliver();
    expect((await world.post(id)).stage).toBe('published');
    expect(network.accepted.size).toBe(1);
  });

  it('is not believed to be away right after the call that got no answer: that call may be on its way', async () => {
    const id = await notOutUnknown();
    network.isMute = false;
    valueOf(await setPostAside(world.work, id, await versionOf(id), 'Rain'));
    world.goTo('2026-11-26T14:51:30.000Z');
    await ask();
    expect(await listMaybeOut(world.db, id)).toHaveLength(1);
    network.accepted.set((await listMaybeOut(world.db, id))[0]!.idempotencyKey, {} as never);
    world.goTo('2026-11-26T15:30:00.000Z');
    await ask();
    expect((await world.post(id)).stage).toBe('published');
  });

  it('with words edited and scheduled anew is published with the words that left, the new ones beside', async () => {
    const id = await outUnknown();
    valueOf(await editPost(world.work, id, await versionOf(id), { caption: 'Other words' }));
    valueOf(await movePost(world.work, id, await versionOf(id), { date: '2026-11-27', time: '10:00' }));
    valueOf(await schedulePost(world.work, id, await versionOf(id)));
    network.isMute = false;
    world.goTo('2026-11-27T10:00:00.000Z');
    await deliver();
    expect(network.accepted.size).toBe(1);
    expect(await world.post(id)).toMatchObject({
      stage: 'published',
      caption: OLD,
      date: '2026-11-26',
      time: '14:30',
      notSent: { date: '2026-11-27', time: '10:00', copy: { words: { caption: 'Other words' } } },
    });
    const versions = await listWordsVersions(world.db, id, 10);
    expect(versions.map(({ words }) => words.caption)).toContain('Other words');
    expect(await current(id)).toMatchObject({ state: 'sent' });
  });

  it('holds a new copy back while the network does not say', async () => {
    const id = await outUnknown();
    valueOf(await movePost(world.work, id, await versionOf(id), { date: '2026-11-27', time: '10:00' }));
    world.goTo('2026-11-27T10:00:00.000Z');
    const calls = network.calls;
    await deliver();
    expect(network.calls).toBe(calls);
    expect(await current(id)).toMatchObject({ state: 'waiting', attempts: 1 });
    expect((await current(id)).words).toContain('an earlier copy of it may be published');
  });

  it('holds a new copy back until “not here” is to be believed', async () => {
    const id = await notOutUnknown();
    network.isMute = false;
    world.goTo('2026-11-26T14:51:20.000Z');
    valueOf(await movePost(world.work, id, await versionOf(id), { date: '2026-11-26', time: '14:52' }));
    const calls = network.calls;
    // Half a minute after the call that got no answer, it may still be on its way.
    valueOf(await publishNow(world.work, id, await versionOf(id)));
    await deliver();
    expect(network.calls).toBe(calls);
    expect((await current(id)).words).toContain('an earlier copy of it may be published');
    world.goTo('2026-11-26T14:53:00.000Z');
    await deliver();
    expect([network.calls - calls, (await world.post(id)).stage]).toEqual([1, 'published']);
  });

  it('is not published while another copy is being sent; that one meets it', async () => {
    const id = await outUnknown();
    valueOf(await movePost(world.work, id, await versionOf(id), { date: '2026-11-27', time: '10:00' }));
    await world.db.run(`update deliveries set state = 'sending' where post_id = $1 and state = 'waiting'`, [id]);
    network.isMute = false;
    world.goTo('2026-11-27T10:00:00.000Z');
    await ask();
    expect((await world.post(id)).stage).toBe('scheduled');
    expect(await listMaybeOut(world.db, id)).toMatchObject([{ unsure: true }]);
    await deliver();
    expect(await world.post(id)).toMatchObject({ stage: 'published', date: '2026-11-26' });
    expect(network.accepted.size).toBe(1);
  });

  it('is not withdrawn or timed anew while it is being sent, or tried again because nobody knows', async () => {
    const post = await world.makePost('pithline');
    valueOf(await schedulePost(world.work, post.id, post.version));
    const { id } = await current(post.id);
    const time = [{ id, dueAt: DUE }];
    for (const [state, unsure, attempts, isAtRest] of [
      ['sending', null, 1, false],
      ['waiting', DUE, 1, false],
      ['waiting', DUE, 0, true],
      ['waiting', null, 1, true],
      ['sent', null, 1, false],
    ] as const) {
      await world.db.run('update deliveries set state = $2, unsure_since = $3, attempts = $4 where id = $1', [
        ...[id, state, unsure, attempts],
      ]);
      expect(await retimeDeliveries(world.db, time)).toEqual(isAtRest && unsure === null ? [id] : []);
      await world.db.run('update deliveries set state = $2, unsure_since = $3, attempts = $4 where id = $1', [
        ...[id, state, unsure, attempts],
      ]);
      expect(await withdrawDeliveries(world.db, [id], DUE)).toEqual(isAtRest ? [id] : []);
    }
  });

  it('moved to 14:00 is shown when it left, not at 14:00', async () => {
    const id = await outUnknown();
    world.goTo('2026-11-27T08:00:00.000Z');
    valueOf(await movePost(world.work, id, await versionOf(id), { date: '2026-11-27', time: '14:00' }));
    network.isMute = false;
    await ask();
    const post = await world.post(id);
    expect(post).toMatchObject({ stage: 'published', date: '2026-11-26', time: '14:30' });
    expect(post.publishedAt! < '2026-11-26T15:00:00.000Z').toBe(true);
  });

  it('moved to another channel says so, and does not go out on both', async () => {
    const id = await outUnknown();
    const outcome = valueOf(
      await changePosts(world.work, world.brandId, [{ id, version: await versionOf(id) }], {
        kind: 'place',
        date: '2026-11-27',
        channelId: world.channels.corkwall,
      }),
    );
    expect(outcome.notes[0]!.message).toContain('It may be published all the same');
    network.isMute = false;
    world.goTo('2026-11-26T15:30:00.000Z');
    await ask();
    expect(await world.post(id)).toMatchObject({ stage: 'published', channelId: world.channels.pithline });
    expect((await loadSheet(world.db, id))!.notSent).not.toBeNull();
  });

  it.each([
    ['set aside', (id: string, version: number) => setPostAside(world.work, id, version, 'Rain')],
    ['deleted', (id: string, version: number) => deletePost(world.work, id, version)],
  ])('%s warns, and is published once it is found', async (_what, deed) => {
    const id = await outUnknown();
    expect(valueOf(await deed(id, await versionOf(id)))).toMatchObject({ unscheduled: true, mayBeOut: true });
    network.isMute = false;
    world.goTo('2026-11-26T15:30:00.000Z');
    await ask();
    expect(await world.post(id)).toMatchObject({ stage: 'published', deletedAt: null, setAsideReason: '' });
  });

  it('is decided by a person who looked: out, or not', async () => {
    const out = await outUnknown();
    valueOf(await declareOut(world.work, out, await versionOf(out), 'https://a.example/1'));
    expect(await current(out)).toMatchObject({ state: 'sent', unsure: false, askAt: null });
    network = fakeNetwork();
    world.goTo('2026-11-23T09:00:00.000Z');
    const not = await outUnknown();
    valueOf(await sayNotOut(world.work, not, await versionOf(not)));
    expect(await current(not)).toMatchObject({ state: 'failed', unsure: false, askAt: null });
    expect(codeOf(await sayNotOut(world.work, not, await versionOf(not)))).toBe('nothing');
  });
});

describe('what went out with other words', () => {
  const wentOut = async () => {
    const post = await world.makePost('pithline');
    valueOf(await schedulePost(world.work, post.id, post.version));
    valueOf(await editPost(world.work, post.id, await versionOf(post.id), { caption: 'Other words' }));
    world.goTo(DUE);
    await deliver();
    return post.id;
  };

  it('shows the words that left, and those typed since beside them', async () => {
    const sheet = (await loadSheet(world.db, await wentOut()))!;
    expect(sheet).toMatchObject({ stage: 'published', caption: OLD, notSent: { words: { caption: 'Other words' } } });
  });

  it('is left as it was sent, or its newer words become a post of their own', async () => {
    const left = await wentOut();
    valueOf(await leaveAsSent(world.work, left, await versionOf(left)));
    expect(await world.post(left)).toMatchObject({ caption: OLD, notSent: null });
    world.goTo('2026-11-23T09:00:00.000Z');
    const id = await wentOut();
    const made = valueOf(await sendAnew(world.work, id, await versionOf(id)));
    expect(await world.post(made.postId)).toMatchObject({ stage: 'ready', caption: 'Other words', notSent: null });
    expect(await world.post(id)).toMatchObject({ stage: 'published', notSent: null });
    expect(codeOf(await sendAnew(world.work, id, await versionOf(id)))).toBe('nothing');
  });
});

describe('late is late', () => {
  it('holds what was tried before an outage and is late by now', async () => {
    const post = await world.makePost('pithline');
    valueOf(await schedulePost(world.work, post.id, post.version));
    network.answers = [{ kind: 'tryLater', words: 'busy' }];
    world.goTo(DUE);
    await deliver();
    world.goTo('2026-11-26T18:00:00.000Z');
    await deliver();
    expect([await current(post.id), network.calls]).toMatchObject([{ state: 'held' }, 1]);
  });

  it('asks about what may be out and is late, and holds it when it is not', async () => {
    const post = await world.makePost('pithline');
    valueOf(await schedulePost(world.work, post.id, post.version));
    network.answers = [{ kind: 'unknown', words: 'silence' }];
    world.goTo(DUE);
    await deliver();
    world.goTo('2026-11-26T18:00:00.000Z');
    await deliver();
    expect([await current(post.id), network.calls]).toMatchObject([{ state: 'held', unsure: false }, 1]);
  });

  it('counts tries afresh after a failed post was re-timed, and lateness from its new time', async () => {
    const post = await world.makePost('pithline');
    valueOf(await schedulePost(world.work, post.id, post.version));
    network.answers = [{ kind: 'refused', words: 'no' }];
    world.goTo(DUE);
    await deliver();
    valueOf(await movePost(world.work, post.id, await versionOf(post.id), { date: '2026-11-27', time: '10:00' }));
    expect(await current(post.id)).toMatchObject({ state: 'waiting', attempts: 0, words: '' });
    world.goTo('2026-11-27T10:30:01.000Z');
    await deliver();
    expect(await current(post.id)).toMatchObject({ state: 'held' });
  });

  it('is tried again only where it failed or is held, and only at the version seen', async () => {
    const post = await world.makePost('pithline', { date: '2026-12-26', time: '10:00' });
    valueOf(await schedulePost(world.work, post.id, post.version));
    expect(codeOf(await tryAgain(world.work, post.id, await versionOf(post.id)))).toBe('notFailed');
    expect(codeOf(await tryAgain(world.work, post.id, post.version))).toBe('stale');
    await deliver();
    expect(network.calls).toBe(0);
  });
});
