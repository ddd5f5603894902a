import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { schedulePost } from '@/usecases/scheduling';
import { deliveryWork, fakeNetwork, makeWorld, valueOf, type TestWorld } from '@/usecases/testWorld';
import { startWorker, type Worker } from './worker';

let world: TestWorld;
let worker: Worker;
beforeEach(async () => void (world = await makeWorld()));
afterEach(async () => {
  await worker.stop();
  await world.close();
});

async function scheduled() {
  const post = await world.makePost('pithline');
  valueOf(await schedulePost(world.work, post.id, post.version));
  world.goTo('2026-11-26T14:30:00.000Z');
  return post.id;
}

describe('the worker', () => {
  it('delivers what is due when it is told to look', async () => {
    const id = await scheduled();
    worker = startWorker(deliveryWork(world, fakeNetwork()), async () => undefined);
    await worker.look();
    expect((await world.post(id)).stage).toBe('published');
  });

  it('looks once more when told while it is looking, and never twice at once', async () => {
    const network = fakeNetwork();
    let atOnce = 0;
    let most = 0;
    const beside = vi.fn(async () => {
      most = Math.max(most, ++atOnce);
      await new Promise((resolve) => setImmediate(resolve));
      atOnce--;
    });
    worker = startWorker(deliveryWork(world, network), beside);
    await Promise.all([worker.look(), worker.look(), worker.look()]);
    expect(most).toBe(1);
    expect(beside.mock.calls.length).toBeGreaterThanOrEqual(2);
  });

  it('goes on after a pass that failed', async () => {
    const id = await scheduled();
    const network = fakeNetwork();
    const beside = vi.fn().mockRejectedValueOnce(new Error('disk full')).mockResolvedValue(undefined);
    worker = startWorker(deliveryWork(world, network), beside);
    await worker.look();
    await worker.look();
    expect(beside).toHaveBeenCalledTimes(2);
    expect((await world.post(id)).stage).toBe('published');
  });

  it('does nothing once it was stopped', async () => {
    const id = await scheduled();
    worker = startWorker(deliveryWork(world, fakeNetwork()), async () => undefined);
    await worker.stop();
    await worker.look();
    expect((await world.post(id)).stage).toBe('scheduled');
  });
});
