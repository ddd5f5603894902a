import { afterEach, beforeEach, expect, it } from 'vitest';
import { oneBrand } from '@/data/brands/brands';
import { countDueByHand } from '@/data/delivery/deliveries';
import { undoChange } from '../undo/undoChange';
import { codeOf, deliveryWork, fakeNetwork, makeWorld, valueOf, type FakeNetwork, type TestWorld } from '../testWorld';
import { holdAll, loadHold, releaseAll } from './holdAll';
import { loadDepartures } from './loadDepartures';
import { publishNow, schedulePost } from './schedule';
import { deliverDue } from './testDeliver';

let world: TestWorld;
let network: FakeNetwork;
beforeEach(async () => {
  world = await makeWorld();
  network = fakeNetwork();
});
afterEach(() => world.close());

const DUE = '2026-11-26T14:30:00.000Z';
const LATER = '2026-11-26T18:00:00.000Z';
const DAY_AFTER = '2026-11-27T14:30:00.000Z';
async function scheduled(channel: 'pithline' | 'homestoop', date = '2026-11-26') {
  const post = await world.makePost(channel, { date, time: '14:30' });
  valueOf(await schedulePost(world.work, post.id, post.version));
  return post.id;
}
async function deliverAt(instant: string): Promise<number> {
  world.goTo(instant);
  await deliverDue(deliveryWork(world, network));
  return network.accepted.size;
}
const fitness = async (now: string) =>
  (await loadDepartures(world.db, await oneBrand(world.db, world.brandId), now)).map((one) => one.fitness);
const hold = () => holdAll(world.work, world.brandId, ' Storm in town ');

it('sends nothing and reminds of nothing by hand until all is released, and what is to come goes then', async () => {
  await scheduled('pithline');
  await scheduled('homestoop');
  await scheduled('pithline', '2026-11-27');
  valueOf(await hold());
  expect(await deliverAt(DUE)).toBe(0);
  expect(await fitness(DUE)).toEqual(['heldWithAll', 'heldWithAll', 'heldWithAll']);
  expect(await countDueByHand(world.db, world.brandId, DUE)).toBe(0);
  expect(await loadHold(world.db, world.brandId, DUE)).toMatchObject({ reason: 'Storm in town', overdue: 2 });
  valueOf(await releaseAll(world.work, world.brandId, false));
  expect(await loadHold(world.db, world.brandId, DUE)).toBeNull();
  expect(await countDueByHand(world.db, world.brandId, DUE)).toBe(1);
  expect(await deliverAt(LATER)).toBe(0);
  expect((await fitness(LATER)).sort()).toEqual(['fit', 'handOver', 'held']);
  expect(await deliverAt(DAY_AFTER)).toBe(1);
});

it('moves what had its time meanwhile where that is asked for, and that can be undone', async () => {
  const [one, other] = [await scheduled('pithline'), await scheduled('homestoop')];
  valueOf(await hold());
  world.goTo(LATER);
  const { spread } = valueOf(await releaseAll(world.work, world.brandId, true));
  expect(spread).toMatchObject({ label: 'Carried 2 posts over', refused: [] });
  for (const id of [one, other])
    expect(await world.post(id)).toMatchObject({ date: '2026-11-27', time: '14:30', stage: 'scheduled' });
  expect(await deliverAt(DAY_AFTER)).toBe(1);
  expect(valueOf(await undoChange(world.work, world.brandId, spread!.changeId)).refused).toHaveLength(1);
});

it('is a manager’s, needs a reason, and is done once', async () => {
  expect(codeOf(await holdAll(world.work, world.brandId, '  '))).toBe('noReason');
  expect(codeOf(await holdAll(world.otherWork, world.brandId, 'Storm'))).toBe('notYours');
  expect(codeOf(await releaseAll(world.work, world.brandId, false))).toBe('notOnHold');
  valueOf(await hold());
  expect(codeOf(await hold())).toBe('onHold');
  expect(codeOf(await releaseAll(world.otherWork, world.brandId, true))).toBe('notYours');
});

it('touches nothing that is due by hand where all was released already, nor what had its time before', async () => {
  const id = await scheduled('homestoop');
  world.goTo(LATER);
  expect(codeOf(await releaseAll(world.work, world.brandId, true))).toBe('notOnHold');
  expect(await world.post(id)).toMatchObject({ date: '2026-11-26', time: '14:30' });
  valueOf(await hold());
  expect(await loadHold(world.db, world.brandId, LATER)).toMatchObject({ overdue: 0 });
  expect(valueOf(await releaseAll(world.work, world.brandId, true))).toEqual({ spread: null });
  expect(await world.post(id)).toMatchObject({ date: '2026-11-26', time: '14:30' });
});

it('refuses to publish at once, in words that say why', async () => {
  const { id, version } = await world.makePost('pithline');
  valueOf(await hold());
  expect(await publishNow(world.work, id, version)).toMatchObject({
    refusal: { code: 'onHold', message: expect.stringContaining('Storm in town') },
  });
});
