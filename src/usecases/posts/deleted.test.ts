import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { makeWorld, START, valueOf, type TestWorld } from '../testWorld';
import { loadDeletedPosts } from './deleted';
import { deletePost, restorePost } from './stages';

let world: TestWorld;
beforeEach(async () => void (world = await makeWorld()));
afterEach(() => world.close());

const deleted = async (now = world.work.clock.now()) =>
  (await loadDeletedPosts(world.db, world.brandId, now)).map(({ id }) => id);

describe('deleted posts', () => {
  it('are listed for 30 days, the last first, until they are brought back', async () => {
    const [first, second] = [
      await world.makePost('pithline'),
      await world.makePost('pithline', { date: '2026-11-26', time: '15:00' }),
    ];
    expect(await deleted()).toEqual([]);
    valueOf(await deletePost(world.work, first.id, first.version));
    world.goTo('2026-11-24T09:00:00.000Z');
    valueOf(await deletePost(world.work, second.id, second.version));
    expect(await deleted()).toEqual([second.id, first.id]);
    expect(await loadDeletedPosts(world.db, world.otherBrandId, START)).toEqual([]);
    valueOf(await restorePost(world.work, second.id));
    expect(await deleted()).toEqual([first.id]);
    expect((await world.post(second.id)).caption).toBe('The dome is open from eight.');
    expect(await deleted('2026-12-25T09:00:00.000Z')).toEqual([]);
  });
});
