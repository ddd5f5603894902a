import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { troubleOf } from '@/data/database/diskFull';
import { attachPicture } from '@/usecases/media/pictures';
import { schedulePost } from '@/usecases/delivery/schedule';
import { deliveryWork, fakeNetwork, makeWorld, START, valueOf, type TestWorld } from '@/usecases/testWorld';
import { startWorker, type Worker } from './worker';

let world: TestWorld;
let worker: Worker;
beforeEach(async () => void (world = await makeWorld()));
afterEach(async () => {
  await worker.stop();
  await world.close();
});

/** Posts that are due now. */
async function scheduled(count = 1) {
  world.goTo(START);
  const ids: string[] = [];
  for (let n = 0; n < count; n++) {
    const post = await world.makePost('pithline');
    valueOf(await schedulePost(world.work, post.id, post.version));
    ids.push(post.id);
  }
  world.goTo('2026-11-26T14:30:00.000Z');
  return ids as [string, ...string[]];
}

describe('the worker', () => {
  it('delivers what is due when it is told to look', async () => {
    const [id] = await scheduled();
    worker = startWorker(deliveryWork(world, fakeNetwork()));
    await worker.look();
    await worker.idle();
    expect((await world.post(id)).stage).toBe('published');
  });

  it('sends each due post once, however often it is told to look', async () => {
    const ids = await scheduled(3);
    const network = fakeNetwork();
    worker = startWorker(deliveryWork(world, network));
    await Promise.all([worker.look(), worker.look(), worker.look()]);
    await worker.idle();
    expect(network.calls).toBe(ids.length);
  });

  it('lets no channel that hangs hold up another', async () => {
    const other = await world.makePost('corkwall');
    const later = await world.makePost('corkwall', { date: '2026-11-26', time: '14:31' });
    valueOf(await putPictureAndSchedule(other.id));
    valueOf(await putPictureAndSchedule(later.id));
    const [hanging] = await scheduled();
    const network = fakeNetwork();
    const answers: (() => void)[] = [];
    const { publish } = network;
    network.publish = async (parcel, label, readPicture) => {
      if (parcel.network === 'pithline') await new Promise<void>((resolve) => answers.push(resolve));
      return publish(parcel, label, readPicture);
    };
    worker = startWorker(deliveryWork(world, network));
    await worker.look();
    await expect.poll(async () => (await world.post(other.id)).stage).toBe('published');
    expect((await world.post(hanging)).stage).toBe('scheduled');
    // What becomes due while one hangs leaves all the same.
    world.goTo('2026-11-26T14:31:00.000Z');
    await worker.look();
    await expect.poll(async () => (await world.post(later.id)).stage).toBe('published');
    answers.forEach((answer) => answer());
    await worker.idle();
    expect((await world.post(hanging)).stage).toBe('published');
  });

  it('goes on after a look that failed, and tells of both', async () => {
    const [id] = await scheduled();
    const work = deliveryWork(world, fakeNetwork());
    let isFull = true;
    const db = {
      ...work.db,
      transaction: (async (act) => {
        if (isFull) throw Object.assign(new Error('could not extend file'), { code: '53100' });
        return work.db.transaction(act);
      }) as typeof work.db.transaction,
    };
    const outcomes: (string | null)[] = [];
    worker = startWorker({ ...work, db }, (error) => outcomes.push(error === null ? null : troubleOf(error)));
    await worker.look();
    isFull = false;
    await worker.look();
    await worker.idle();
    expect(outcomes[0]).toContain('disk');
    expect(outcomes.at(-1)).toBeNull();
    expect((await world.post(id)).stage).toBe('published');
  });

  it('does nothing once it was stopped', async () => {
    const [id] = await scheduled();
    worker = startWorker(deliveryWork(world, fakeNetwork()));
    await worker.stop();
    await worker.look();
    expect((await world.post(id)).stage).toBe('scheduled');
  });
});

async function putPictureAndSchedule(id: string) {
  const file = { sha256: 'a'.repeat(64), mime: 'image/jpeg', width: 1_000, height: 1_500, bytes: 90_000 };
  valueOf(await attachPicture(world.work, id, { ...file, fileName: 'a.jpg', durationMs: null }, 'A dome'));
  return schedulePost(world.work, id, (await world.post(id)).version);
}
