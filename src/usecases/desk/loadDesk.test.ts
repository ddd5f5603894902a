import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { oneBrand } from '@/data/brands/brands';
import { listChannels } from '@/data/brands/channels';
import { countInTrouble } from '@/data/posts/postLines';
import { deliverDue } from '../delivery/testDeliver';
import { loadDepartures } from '../delivery/loadDepartures';
import { schedulePost } from '../delivery/schedule';
import { setPostAside } from '../posts/stages';
import { deliveryWork, fakeNetwork, makeWorld, valueOf, type TestWorld } from '../testWorld';
import { loadDesk } from './loadDesk';

let world: TestWorld;
beforeEach(async () => void (world = await makeWorld()));
afterEach(() => world.close());

const TODAY = { date: '2026-11-23', time: '14:30' };
const desk = async () =>
  loadDesk(
    world.db,
    await oneBrand(world.db, world.brandId),
    await listChannels(world.db, world.brandId),
    world.work.clock.now(),
  );
const inTrouble = async () => (await desk()).inTrouble.map(({ slip }) => slip.id);
const count = (today: string) => countInTrouble(world.db, world.brandId, today);

describe('what was not sent', () => {
  it('stands on the desk, in the departures and in the count from the day after, scheduled or not, until it is dealt with', async () => {
    const draft = await world.makePost('pithline', TODAY);
    const byHand = await world.makePost('homestoop', TODAY);
    valueOf(await schedulePost(world.work, byHand.id, byHand.version));
    expect([await inTrouble(), await count('2026-11-23')]).toEqual([[], 0]);
    expect((await desk()).week).toEqual({ all: 2, out: 0, notSent: 0, ready: 1 });
    world.goTo('2026-11-25T09:00:00.000Z');
    expect((await inTrouble()).sort()).toEqual([draft.id, byHand.id].sort());
    expect((await desk()).week).toEqual({ all: 2, out: 0, notSent: 2, ready: 0 });
    // What is to be posted by hand is counted for itself.
    expect(await count('2026-11-25')).toBe(1);
    const departures = await loadDepartures(world.db, await oneBrand(world.db, world.brandId), world.work.clock.now());
    expect(departures.map(({ slip }) => slip.id).sort()).toEqual([draft.id, byHand.id].sort());
    valueOf(await setPostAside(world.work, draft.id, draft.version, 'Clouds'));
    expect([await inTrouble(), await count('2026-11-25')]).toEqual([[byHand.id], 0]);
  });

  it('is also what failed today, which is not among what is to be sent', async () => {
    const network = fakeNetwork();
    const post = await world.makePost('pithline', TODAY);
    valueOf(await schedulePost(world.work, post.id, post.version));
    world.goTo('2026-11-23T14:30:00.000Z');
    network.answers = [{ kind: 'refused', words: 'Too long.' }];
    await deliverDue(deliveryWork(world, network));
    const { inTrouble: found, leaves } = await desk();
    expect([found.map(({ slip }) => slip.id), leaves, await count('2026-11-23')]).toEqual([[post.id], [], 1]);
  });
});
