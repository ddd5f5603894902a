import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { listTakeDowns } from '@/data/delivery/takeDowns';
import { loadNotices } from '../notices/notices';
import { tellPeople } from '../notices/tell';
import { codeOf, deliveryWork, fakeNetwork, makeWorld, valueOf, type FakeNetwork, type TestWorld } from '../testWorld';
import { declareOut, schedulePost } from './schedule';
import { loadSetAside } from './setAside';
import { sayTakenDown, takeDown } from './takeDown';
import { deliverDue } from './testDeliver';

let world: TestWorld;
let network: FakeNetwork;
beforeEach(async () => {
  world = await makeWorld();
  network = fakeNetwork();
});
afterEach(() => world.close());

/** A post that Bimlo sent to its network. */
async function sent() {
  const post = await world.makePost('pithline', { date: '2026-11-23', time: '14:30' });
  valueOf(await schedulePost(world.work, post.id, post.version));
  world.goTo('2026-11-23T14:30:00.000Z');
  await deliverDue(deliveryWork(world, network));
  return world.post(post.id);
}
/** A post that a person said to be out. */
async function byHand() {
  const post = await world.makePost('homestoop', { date: '2026-11-23', time: '14:30' });
  valueOf(await declareOut(world.work, post.id, post.version, ''));
  return world.post(post.id);
}
const down = ({ id, version }: { id: string; version: number }, reason = 'Wrong date', work = world.work) =>
  takeDown({ ...work, network }, id, version, reason);
const stateOf = async (id: string) => (await listTakeDowns(world.db, [id])).get(id);

describe('a post that Bimlo sent', () => {
  it('is taken down at its network, with the reason kept, and once', async () => {
    const post = await sent();
    expect(valueOf(await down(post, '  Wrong \n date '))).toEqual({ way: 'network' });
    expect(network.takenDown).toHaveLength(1);
    expect(await stateOf(post.id)).toMatchObject({
      way: 'network',
      reason: 'Wrong date',
      doneAt: world.work.clock.now(),
    });
    expect((await world.post(post.id)).stage).toBe('published');
    expect(codeOf(await down(post))).toBe('takenDown');
    expect(network.takenDown).toHaveLength(1);
    const { months, reasons } = await loadSetAside(world.db, world.brandId, null);
    expect(months.flatMap(({ posts }) => posts)).toMatchObject([{ id: post.id, isTakenDown: true }]);
    expect(reasons).toEqual([{ reason: 'Wrong date', count: 1 }]);
  });

  it('stays as it was where its network does not answer, and is taken down when it is asked again', async () => {
    const post = await sent();
    network.isMute = true;
    expect(codeOf(await down(post))).toBe('noAnswer');
    expect(await stateOf(post.id)).toBeUndefined();
    network.isMute = false;
    expect(valueOf(await down(post)).way).toBe('network');
  });

  it('is a person’s to take down where its network takes nothing down', async () => {
    const post = await sent();
    network.keepsAll = true;
    expect(valueOf(await down(post)).way).toBe('byHand');
    expect(await stateOf(post.id)).toMatchObject({ doneAt: null });
  });
});

describe('a post that a person posted', () => {
  it('is told of until somebody says that it is gone', async () => {
    const post = await byHand();
    expect(valueOf(await down(post)).way).toBe('byHand');
    expect(network.takenDown).toEqual([]);
    expect(await tellPeople(world.work)).toBe(1);
    expect(await tellPeople(world.work)).toBe(0);
    expect(await loadNotices(world.db, world.work.actorId)).toMatchObject([
      { kind: 'takeDown', postId: post.id, isSettled: false },
    ]);
    valueOf(await sayTakenDown(world.work, post.id, post.version));
    expect(await stateOf(post.id)).toMatchObject({ doneAt: world.work.clock.now() });
    expect(await loadNotices(world.db, world.work.actorId)).toMatchObject([{ isSettled: true }]);
    expect(codeOf(await sayTakenDown(world.work, post.id, post.version))).toBe('notToBeTakenDown');
  });
});

it('only what is published is taken down, with a reason, by who may send', async () => {
  const draft = await world.makePost('pithline');
  expect(codeOf(await down(draft))).toBe('notPublished');
  const post = await byHand();
  expect(codeOf(await down(post, ' '))).toBe('noReason');
  expect(codeOf(await down(post, 'x'.repeat(501)))).toBe('longReason');
  await world.db.run('update brands set makers_send = false where id = $1', [world.brandId]);
  expect(codeOf(await down(post, 'Wrong', world.otherWork))).toBe('notYours');
  expect(codeOf(await sayTakenDown(world.otherWork, post.id, post.version))).toBe('notYours');
  expect(network.takenDown).toEqual([]);
  expect(await stateOf(post.id)).toBeUndefined();
});
