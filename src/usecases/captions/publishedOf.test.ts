import { afterEach, beforeEach, expect, it } from 'vitest';
import { declareOut } from '../delivery/schedule';
import { catchIdea } from '../pieces/pieces';
import { loadSheet } from '../posts/loadPosts';
import { planPiece } from '../posts/planPosts';
import { codeOf, makeWorld, valueOf, type TestWorld } from '../testWorld';
import { editPost } from './editPost';
import { publishedOf } from './publishedOf';

let world: TestWorld;
beforeEach(async () => {
  world = await makeWorld();
});
afterEach(() => world.close());

it('what was published of a piece stands beside what is written of it, the newest first, with texts and address', async () => {
  const { id: pieceId } = valueOf(await catchIdea(world.work, { brandId: world.brandId, title: 'Rings' }));
  const { pithline, corkwall, glassrow } = world.channels;
  const plan = { date: '2026-11-23', time: null };
  const { postIds } = valueOf(await planPiece(world.work, pieceId, [pithline, corkwall, glassrow], plan));
  expect(valueOf(await publishedOf(world.work, pieceId))).toEqual([]);
  for (const [index, id] of postIds.slice(0, 2).entries()) {
    world.goTo(`2026-11-23T1${index}:00:00Z`);
    valueOf(await editPost(world.work, id, 1, { caption: `Caption ${index}` }));
    valueOf(await declareOut(world.work, id, 2, `https://said.example/${index}`));
  }
  const said = valueOf(await publishedOf(world.work, pieceId));
  expect(said.map(({ callSign, texts, address }) => [callSign, texts, address])).toEqual([
    ['CW', ['Rings', 'Caption 1'], 'https://said.example/1'],
    ['PL', ['Caption 0'], 'https://said.example/0'],
  ]);
  expect((await loadSheet(world.db, postIds[2]!))!.pieceSaid).toBe(2);
});

it('is refused to those of other brands, and of no piece', async () => {
  const { id } = valueOf(await catchIdea(world.work, { brandId: world.otherBrandId, title: 'Ferry' }));
  expect(codeOf(await publishedOf(world.otherWork, id))).toBe('notYours');
  expect(codeOf(await publishedOf(world.work, '00000000-0000-0000-0000-000000000001'))).toBe('notFound');
});
