import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { maybeDeliveryOfPost } from '@/data/delivery/deliveries';
import { forgetHolders } from '@/data/holders/holders';
import { deliverDue } from './testDeliver';
import { movePost } from '../posts/planPosts';
import { schedulePost, tryAgain } from './schedule';
import { codeOf, deliveryWork, fakeNetwork, makeWorld, valueOf, type FakeNetwork, type TestWorld } from '../testWorld';
import { editPost } from '../captions/editPost';

let world: TestWorld;
let network: FakeNetwork;
beforeEach(async () => {
  world = await makeWorld();
  network = fakeNetwork();
});
afterEach(() => world.close());

const DUE = '2026-11-26T14:30:00.000Z';
const deliver = () => deliverDue(deliveryWork(world, network));
const stateOf = async (id: string) => (await maybeDeliveryOfPost(world.db, id))!.state;

async function scheduled() {
  const post = await world.makePost('pithline');
  valueOf(await schedulePost(world.work, post.id, post.version));
  return post.id;
}

describe('delivery', () => {
  it('sends when due, not before, once, and the copy made when scheduled', async () => {
    const id = await scheduled();
    const { version, caption } = await world.post(id);
    valueOf(await editPost(world.work, id, version, { caption: 'Changed after scheduling' }));
    world.goTo('2026-11-26T14:29:59.000Z');
    expect(await deliver()).toBe(0);
    world.goTo(DUE);
    expect(await deliver()).toBe(1);
    expect(await deliver()).toBe(0);
    expect([...network.accepted.values()].map((parcel) => parcel.texts[0]!.text)).toEqual([caption]);
    expect(await world.post(id)).toMatchObject({ stage: 'published', publishedAt: DUE });
  });

  it('fails for good when refused, with the network’s words; trying again uses the same key', async () => {
    const id = await scheduled();
    network.answers = [{ kind: 'refused', words: 'not today' }];
    world.goTo(DUE);
    await deliver();
    expect(await maybeDeliveryOfPost(world.db, id)).toMatchObject({ state: 'failed', words: 'not today' });
    expect((await world.post(id)).stage).toBe('scheduled');
    valueOf(await tryAgain(world.work, id, (await world.post(id)).version));
    await deliver();
    expect((await world.post(id)).stage).toBe('published');
    expect(network.accepted.size).toBe(1);
  });

  it('tries later after 1, 5 and 15 minutes, then fails', async () => {
    const id = await scheduled();
    network.answers = Array.from({ length: 4 }, () => ({ kind: 'tryLater', words: 'busy' }) as const);
    for (const [at, calls] of [
      [DUE, 1],
      ['2026-11-26T14:30:59.000Z', 1],
      ['2026-11-26T14:31:00.000Z', 2],
      ['2026-11-26T14:36:00.000Z', 3],
      ['2026-11-26T14:51:00.000Z', 4],
    ] as const) {
      world.goTo(at);
      await deliver();
      expect(network.calls).toBe(calls);
    }
    expect(await stateOf(id)).toBe('failed');
  });

  it('asks first when no answer came, and does not send what is out', async () => {
    const id = await scheduled();
    network.answers = ['acceptThenSilent'];
    world.goTo(DUE);
    await deliver();
    expect(await maybeDeliveryOfPost(world.db, id)).toMatchObject({ state: 'waiting', unsure: true });
    const { version } = await world.post(id);
    expect(codeOf(await movePost(world.work, id, version, { date: null }))).toBe('leaving');
    world.goTo('2026-11-26T14:31:00.000Z');
    await deliver();
    expect({ calls: network.calls, asked: network.asked, stage: (await world.post(id)).stage }).toEqual({
      calls: 1,
      asked: 1,
      stage: 'published',
    });
  });

  it('sends again under the same key when the network never got it', async () => {
    const id = await scheduled();
    network.answers = [{ kind: 'unknown', words: 'silence' }];
    world.goTo(DUE);
    await deliver();
    world.goTo('2026-11-26T14:31:00.000Z');
    await deliver();
    expect({
      calls: network.calls,
      asked: network.asked,
      accepted: network.accepted.size,
      stage: (await world.post(id)).stage,
    }).toEqual({
      calls: 2,
      asked: 1,
      accepted: 1,
      stage: 'published',
    });
  });

  it('takes up a try that broke off with the process, asking first', async () => {
    const id = await scheduled();
    world.goTo(DUE);
    const broken = fakeNetwork();
    broken.publish = () => new Promise(() => undefined);
    void deliverDue(deliveryWork(world, broken));
    await expect.poll(() => stateOf(id)).toBe('sending');
    const { idempotencyKey, parcel } = (await maybeDeliveryOfPost(world.db, id))!;
    network.accepted.set(idempotencyKey, parcel);
    expect(await deliver()).toBe(0);
    await forgetHolders(world.db);
    expect(await deliver()).toBe(1);
    expect({ calls: network.calls, asked: network.asked, stage: (await world.post(id)).stage }).toEqual({
      calls: 0,
      asked: 1,
      stage: 'published',
    });
  });

  it('holds what was missed by more than half an hour until a person says', async () => {
    const id = await scheduled();
    world.goTo('2026-11-26T15:00:01.000Z');
    expect(await deliver()).toBe(0);
    expect(await stateOf(id)).toBe('held');
    valueOf(await tryAgain(world.work, id, (await world.post(id)).version));
    await deliver();
    expect((await world.post(id)).stage).toBe('published');
  });

  it('does not send by-hand posts', async () => {
    const post = await world.makePost('homestoop');
    valueOf(await schedulePost(world.work, post.id, post.version));
    world.goTo(DUE);
    expect(await deliver()).toBe(0);
    expect(await stateOf(post.id)).toBe('waiting');
  });

  it('gives two workers at once each their own', async () => {
    for (let n = 0; n < 6; n++) await scheduled();
    world.goTo(DUE);
    const tries = await Promise.all([deliver(), deliver()]);
    expect(tries[0]! + tries[1]!).toBe(6);
    expect({ calls: network.calls, accepted: network.accepted.size }).toEqual({ calls: 6, accepted: 6 });
  });
});
