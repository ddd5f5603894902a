import { afterEach, beforeEach, expect, it } from 'vitest';
import { insertPerson } from '@/data/people/people';
import { updateBrand } from '@/data/brands/brands';
import { schedulePost } from '../delivery/schedule';
import { editBrand } from '../brands/brands';
import { signPostOff, takeSignOffBack } from './signOff';
import { putAtStage } from './stages';
import { codeOf, makeWorld, valueOf, type TestWorld } from '../testWorld';
import { loadSheet } from './loadPosts';
import { waiveWants } from './waiveWants';
import { editPost } from '../captions/editPost';

let world: TestWorld;
const REVIEWER = '33333333-3333-4333-8333-333333333333';
const brand = { name: 'Moor', zone: 'Europe/Lisbon', weekStart: 1, daysOff: [] };

beforeEach(async () => {
  world = await makeWorld();
  await insertPerson(world.db, { id: REVIEWER, slug: 'rev', name: 'Rev', role: 'reviewer', position: 3 }, [
    world.brandId,
  ]);
  valueOf(await editBrand(world.work, world.brandId, { ...brand, asksSignOff: true }));
});
afterEach(() => world.close());

const reviewer = () => ({ ...world.work, actorId: REVIEWER });
const schedule = async (id: string) => schedulePost(world.work, id, (await world.post(id)).version);
const state = async (id: string) => (await loadSheet(world.db, id))!.signOff.state;

it('a post of a brand that asks for it is neither ready nor scheduled before a yes', async () => {
  const post = await world.makePost('pithline');
  const refusal = await putAtStage(world.work, post.id, post.version, 'ready');
  expect(refusal.ok || [refusal.refusal.code, refusal.refusal.field]).toEqual(['wanted', 'signOff']);
  expect(codeOf(await schedule(post.id))).toBe('wanted');
  valueOf(await signPostOff(reviewer(), post.id, post.version));
  expect(await state(post.id)).toBe('given');
  expect((await schedule(post.id)).ok).toBe(true);
});

it('changed words need a new yes, and a new day does not', async () => {
  const post = await world.makePost('pithline');
  valueOf(await signPostOff(reviewer(), post.id, post.version));
  const signed = await world.post(post.id);
  valueOf(await editPost(world.work, post.id, signed.version, { title: 'Another working title' }));
  expect(await state(post.id)).toBe('given');
  valueOf(await editPost(world.work, post.id, signed.version + 1, { caption: 'The dome is shut.' }));
  expect(await state(post.id)).toBe('outdated');
  expect(codeOf(await schedule(post.id))).toBe('wanted');
});

it('is given by reviewers and managers, and taken back by who gave it or a manager; by no maker', async () => {
  const post = await world.makePost('pithline');
  expect(codeOf(await signPostOff(world.otherWork, post.id, post.version))).toBe('notYours');
  valueOf(await signPostOff(world.work, post.id, post.version));
  const signed = await world.post(post.id);
  expect(codeOf(await takeSignOffBack(world.otherWork, post.id, signed.version))).toBe('notYours');
  expect(codeOf(await takeSignOffBack(reviewer(), post.id, signed.version))).toBe('notYours');
  valueOf(await takeSignOffBack(world.work, post.id, signed.version));
  expect(await state(post.id)).toBe('missing');
  valueOf(await signPostOff(reviewer(), post.id, signed.version + 1));
  valueOf(await takeSignOffBack(reviewer(), post.id, signed.version + 2));
  expect(codeOf(await takeSignOffBack(reviewer(), post.id, signed.version + 3))).toBe('nothing');
});

it('is waived by a manager with a reason', async () => {
  const post = await world.makePost('pithline');
  expect(codeOf(await waiveWants(reviewer(), post.id, post.version, 'She is away'))).toBe('notYours');
  valueOf(await waiveWants(world.work, post.id, post.version, 'She is away'));
  expect((await schedule(post.id)).ok).toBe(true);
});

it('is based on the version that was looked at', async () => {
  const post = await world.makePost('pithline');
  expect(codeOf(await signPostOff(reviewer(), post.id, post.version - 1))).toBe('stale');
});

it('is not taken where the brand does not ask for it', async () => {
  await updateBrand(world.db, world.brandId, {
    ...brand,
    weekdays: [1],
    wordsPerMinute: 150,
    asksSignOff: false,
    delivers: 'networks',
    encoreDays: 60,
    makersSend: null,
    makersExchange: false,
  });
  const post = await world.makePost('pithline');
  expect(codeOf(await signPostOff(reviewer(), post.id, post.version))).toBe('notAsked');
  expect(await state(post.id)).toBe('notAsked');
  expect((await schedule(post.id)).ok).toBe(true);
});
