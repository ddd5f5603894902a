import { afterEach, beforeEach, expect, it } from 'vitest';
import { insertExtracts } from '@/data/extracts/extracts';
import { insertPostExtracts, listExtractsOfPosts } from '@/data/fanOut/postExtracts';
import { makeWorld, START, valueOf, type TestWorld } from '../testWorld';
import { doing } from '../useCase';
import { tellExtracts } from './tellExtracts';

let world: TestWorld;
beforeEach(async () => void (world = await makeWorld()));
afterEach(() => world.close());

const TEXT = 'The rings are younger than we thought.';

/** A post that was made from the first words of its piece. */
async function madeFrom() {
  const { id: postId } = await world.makePost('pithline');
  const { pieceId } = await world.post(postId);
  const extract = { ...{ id: '11111111-1111-4111-8111-111111111111', brandId: world.brandId, pieceId }, reason: '' };
  const place = { ...{ kind: 'quote' as const, state: 'accepted' as const }, start: 0, end: 9 };
  const made = { createdAt: START, createdBy: world.work.actorId };
  await insertExtracts(world.db, [{ ...extract, ...place, ...made }]);
  await insertPostExtracts(world.db, [{ postId, extractId: extract.id }]);
  const tell = async (text: string | null, words: string) => {
    const told = { line: 2, postId, pieceId, extracts: [{ kind: 'quote' as const, text: words, start: null }] };
    return valueOf(await doing(world.work, (act) => tellExtracts(act, world.brandId, [told], async () => text))).notes;
  };
  const kept = async () => (await listExtractsOfPosts(world.db, [postId])).map(({ start, end }) => [start, end]);
  return { tell, kept };
}

it('a post of a piece that cannot be read keeps what it was made from, and that is said', async () => {
  const { tell, kept } = await madeFrom();
  expect(await tell(null, 'than we thought')).toEqual([
    { line: 2, message: expect.stringContaining('stays as it is') },
  ]);
  expect(await kept()).toEqual([[0, 9]]);
});

it('what a row names takes the place of what was known', async () => {
  const { tell, kept } = await madeFrom();
  expect(await tell(TEXT, 'younger')).toEqual([]);
  expect(await kept()).toEqual([[14, 21]]);
});

it('words that do not stand in the piece are named', async () => {
  const { tell, kept } = await madeFrom();
  expect(await tell(TEXT, 'older')).toEqual([{ line: 2, message: expect.stringContaining('no passage “older”') }]);
  expect(await kept()).toEqual([]);
});
