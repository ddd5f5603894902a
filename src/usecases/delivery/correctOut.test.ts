import { afterEach, beforeEach, expect, it } from 'vitest';
import { editPost } from '../captions/editPost';
import { undoChange } from '../undo/undoChange';
import { codeOf, deliveryWork, fakeNetwork, makeWorld, valueOf, type TestWorld } from '../testWorld';
import { correctOut } from './correctOut';
import { declareOut, schedulePost } from './schedule';
import { deliverDue } from './testDeliver';

let world: TestWorld;
beforeEach(async () => void (world = await makeWorld()));
afterEach(() => world.close());

const RIGHT = { address: 'https://stoop.example/right', at: { date: '2026-11-21', time: '19:00' } };
const versionOf = async (id: string) => (await world.post(id)).version;
async function out() {
  const post = await world.makePost('homestoop');
  valueOf(await declareOut(world.work, post.id, post.version, 'https://stoop.example/wrong'));
  return post.id;
}

it('puts right where and when a post went out that a person said to be out, and can be undone', async () => {
  const id = await out();
  const before = await world.post(id);
  valueOf(await correctOut(world.work, id, before.version, RIGHT));
  expect(await world.post(id)).toMatchObject({
    ...{ stage: 'published', address: RIGHT.address, ...RIGHT.at },
    publishedAt: '2026-11-21T19:00:00.000Z',
  });
  valueOf(await undoChange(world.work, world.brandId, null));
  const { address, publishedAt, date, time, stage } = before;
  expect(await world.post(id)).toMatchObject({ address, publishedAt, date, time, stage });
});

it('leaves the time where only the address was wrong, or there is none', async () => {
  const id = await out();
  const { publishedAt, version } = await world.post(id);
  valueOf(await correctOut(world.work, id, version, { address: '', at: null }));
  expect(await world.post(id)).toMatchObject({ address: '', publishedAt, stage: 'published' });
});

it('changes nothing of what is not out, of what a network took, nor anything else of what is out', async () => {
  const draft = await world.makePost('homestoop');
  expect(codeOf(await correctOut(world.work, draft.id, draft.version, RIGHT))).toBe('notPublished');
  const sent = await world.makePost('pithline');
  valueOf(await schedulePost(world.work, sent.id, sent.version));
  world.goTo('2026-11-26T14:30:00.000Z');
  await deliverDue(deliveryWork(world, fakeNetwork()));
  expect(codeOf(await correctOut(world.work, sent.id, await versionOf(sent.id), RIGHT))).toBe('published');
  const id = await out();
  expect(codeOf(await editPost(world.work, id, await versionOf(id), { caption: 'Other words' }))).toBe('published');
  const coming = { ...RIGHT, at: { date: '2026-12-01', time: '10:00' } };
  expect(codeOf(await correctOut(world.work, id, await versionOf(id), coming))).toBe('notYet');
});
