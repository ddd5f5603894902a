import { randomUUID } from 'node:crypto';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { PublishAnswer } from '@/core/delivery/network';
import { maybeDeliveryOfPost } from '@/data/delivery/deliveries';
import { listMaybeOut } from '@/data/delivery/doubts';
import { listOtherBeats } from '@/data/holders/holders';
import { changePosts } from '../calendar/changePosts';
import { movePost } from '../posts/planPosts';
import { deliveryWork, fakeNetwork, makeWorld, valueOf, type FakeNetwork, type TestWorld } from '../testWorld';
import { askUnsure } from './askNetworks';
import { makeCourier, type Holder } from './deliver';
import { sayNotOut, schedulePost } from './schedule';

let world: TestWorld;
let network: FakeNetwork;
beforeEach(async () => {
  world = await makeWorld();
  network = fakeNetwork();
});
afterEach(() => world.close());

const DUE = '2026-11-26T14:30:00.000Z';
const current = async (id: string) => (await maybeDeliveryOfPost(world.db, id))!;
const versionOf = async (id: string) => (await world.post(id)).version;

/** A process that delivers, and whose calls to the network wait until they are answered by hand. */
function process(stopped: Holder['stopped'] = () => []) {
  const calls: ((answer: PublishAnswer) => void)[] = [];
  const slow = { ...network, publish: () => new Promise<PublishAnswer>((answer) => calls.push(answer)) };
  const errors: unknown[] = [];
  const holder = { id: randomUUID() as string, stopped };
  const courier = makeCourier({ ...deliveryWork(world, slow), holder }, (error) => errors.push(error));
  return { ...courier, calls, errors, holder };
}

async function scheduled() {
  const post = await world.makePost('pithline');
  valueOf(await schedulePost(world.work, post.id, post.version));
  world.goTo(DUE);
  return post.id;
}

/** The processes known, as somebody sees them who watched them stand still. */
const allStopped = async () => listOtherBeats(world.db, randomUUID());

const ACCEPTED = { kind: 'accepted', address: '/standins/x/1' } as const;

describe('a process that sends', () => {
  it('never claims again what it holds, however far the clock jumps while the network is called', async () => {
    const id = await scheduled();
    const one = process();
    await one.look();
    for (const at of ['2026-11-26T14:40:00.000Z', '2026-11-27T14:30:00.000Z', '2026-11-26T10:00:00.000Z']) {
      world.goTo(at);
      await one.look();
    }
    expect(one.calls).toHaveLength(1);
    one.calls[0]!(ACCEPTED);
    await one.idle();
    expect(one.errors).toEqual([]);
    expect([(await world.post(id)).stage, (await current(id)).attempts]).toEqual(['published', 1]);
  });

  it('takes up again what it could not write the end of, and asks first', async () => {
    const id = await scheduled();
    const one = process();
    await one.look();
    network.accepted.set((await current(id)).idempotencyKey, (await current(id)).parcel);
    const { transaction } = world.db;
    world.db.transaction = () => Promise.reject(new Error('no room'));
    one.calls[0]!(ACCEPTED);
    await expect.poll(() => one.errors.length).toBeGreaterThan(0);
    world.db.transaction = transaction;
    await one.look();
    await one.idle();
    expect([one.calls.length, network.asked, (await world.post(id)).stage]).toEqual([1, 1, 'published']);
  });

  it('keeps what it holds while it beats; what stopped is taken over at that beat only, and asked about first', async () => {
    const id = await scheduled();
    const one = process();
    await one.look();
    const stoppedAt = await allStopped();
    world.goTo('2026-11-26T14:45:00.000Z');
    const living = process();
    await living.look();
    const beatenSince = process(() => stoppedAt.map(({ beat, ...holder }) => ({ ...holder, beat: beat - 1 })));
    await beatenSince.look();
    expect([living.tries(), beatenSince.tries()]).toEqual([0, 0]);
    const other = process(() => stoppedAt);
    await other.look();
    await expect.poll(() => other.calls.length).toBe(1);
    expect(network.asked).toBe(1);
    expect(await current(id)).toMatchObject({ state: 'sending', unsure: true, attempts: 2 });
    one.calls[0]!({ kind: 'refused', words: 'too late to say so' });
    await one.idle();
    expect(await current(id)).toMatchObject({ state: 'sending', words: '' });
    other.calls[0]!(ACCEPTED);
    await other.idle();
    expect((await world.post(id)).stage).toBe('published');
  });
});

describe('an answer that comes after the delivery was taken over', () => {
  /** One process called the network and was stopped; another took over, asked, and was answered otherwise. */
  async function takenOver(answer: PublishAnswer) {
    const id = await scheduled();
    const one = process();
    await one.look();
    const stoppedAt = await allStopped();
    world.goTo('2026-11-26T14:33:00.000Z');
    const other = process(() => stoppedAt);
    await other.look();
    await expect.poll(() => other.calls.length).toBe(1);
    other.calls[0]!(answer);
    await other.idle();
    return { id, one };
  }

  it('is written when it says accepted, though the delivery had failed by then', async () => {
    const { id, one } = await takenOver({ kind: 'refused', words: 'no' });
    expect((await current(id)).state).toBe('failed');
    one.calls[0]!(ACCEPTED);
    await one.idle();
    expect(one.errors).toEqual([]);
    expect(await world.post(id)).toMatchObject({ stage: 'published', address: '/standins/x/1' });
    expect(await current(id)).toMatchObject({ state: 'sent', unsure: false });
  });

  it('is written when it says accepted, though the post was unscheduled and waits with another copy', async () => {
    const { id, one } = await takenOver({ kind: 'refused', words: 'no' });
    valueOf(
      await changePosts(world.work, world.brandId, [{ id, version: await versionOf(id) }], {
        kind: 'stage',
        stage: 'ready',
      }),
    );
    valueOf(await movePost(world.work, id, await versionOf(id), { date: '2026-11-27', time: '10:00' }));
    valueOf(await schedulePost(world.work, id, await versionOf(id)));
    one.calls[0]!(ACCEPTED);
    await one.idle();
    expect(await world.post(id)).toMatchObject({ stage: 'published', date: '2026-11-26' });
    world.goTo('2026-11-27T10:00:00.000Z');
    const later = process();
    await later.look();
    expect(later.tries()).toBe(0);
  });

  it('makes it unsure when there was none, so that nothing is sent before the network was asked', async () => {
    const { id, one } = await takenOver({ kind: 'refused', words: 'no' });
    one.calls[0]!({ kind: 'unknown', words: 'silence' });
    await one.idle();
    expect(await current(id)).toMatchObject({ state: 'unknown', unsure: true, askAt: '2026-11-26T14:33:00.000Z' });
  });

  it('changes nothing when it says something else', async () => {
    const { id, one } = await takenOver({ kind: 'refused', words: 'no' });
    one.calls[0]!({ kind: 'tryLater', words: 'busy' });
    await one.idle();
    expect(await current(id)).toMatchObject({ state: 'failed', words: 'no', unsure: false });
  });
});

describe('a doubt that comes up while an older question is out', () => {
  it('stays when the answer to the older one is “not here”', async () => {
    const id = await scheduled();
    network.answers = Array.from({ length: 4 }, () => ({ kind: 'unknown', words: 'silence' }) as const);
    network.isMute = true;
    for (const at of [DUE, '2026-11-26T14:31:00.000Z', '2026-11-26T14:36:00.000Z', '2026-11-26T14:51:00.000Z']) {
      world.goTo(at);
      const one = makeCourier(deliveryWork(world, network), () => undefined);
      await one.look();
      await one.idle();
    }
    world.goTo('2026-11-26T14:56:00.000Z');
    const waiting: (() => void)[] = [];
    const asking = askUnsure(
      deliveryWork(world, {
        ...network,
        find: async () => {
          await new Promise<void>((answer) => waiting.push(answer));
          return { kind: 'notFound' };
        },
      }),
    );
    await expect.poll(() => waiting.length).toBe(1);
    const before = await current(id);
    await world.db.run('update deliveries set doubts = doubts + 1, unsure_since = $2 where id = $1', [
      before.id,
      '2026-11-26T14:56:00.000Z',
    ]);
    waiting[0]!();
    await asking;
    expect(await current(id)).toMatchObject({ state: 'unknown', unsure: true });
    // A person who looks now settles what stands now.
    valueOf(await sayNotOut(world.work, id, await versionOf(id)));
    expect([await current(id), await listMaybeOut(world.db, id)]).toMatchObject([
      { state: 'failed', unsure: false },
      [],
    ]);
  });
});
