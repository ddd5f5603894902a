import { randomUUID } from 'node:crypto';
import { afterEach, beforeEach, expect, it } from 'vitest';
import type { Work } from './useCase';
import { changePosts } from './calendar/changePosts';
import { catchIdea } from './pieces/pieces';
import { planPiece } from './posts/planPosts';
import { codeOf, makeWorld, valueOf, type TestWorld } from './testWorld';

let world: TestWorld;
beforeEach(async () => void (world = await makeWorld()));
afterEach(() => world.close());

/** The same request, however often it comes. */
function sameRequest(actor: Work = world.work): () => Work {
  const key = randomUUID();
  return () => ({ ...actor, request: { key, parts: 0 } });
}
const count = async (table: 'pieces' | 'posts') =>
  (await world.db.rows<{ count: number }>(`select count(*)::int as count from ${table}`))[0]!.count;

it('an idea that is sent twice is caught once, and answered alike', async () => {
  const again = sameRequest();
  const first = valueOf(await catchIdea(again(), { brandId: world.brandId, title: 'Rings' }));
  const second = valueOf(await catchIdea(again(), { brandId: world.brandId, title: 'Rings' }));
  expect([second.id, await count('pieces')]).toEqual([first.id, 1]);
});

it('twenty at once make one', async () => {
  const idea = valueOf(await catchIdea(world.work, { brandId: world.brandId, title: 'Rings' }));
  const again = sameRequest();
  const plan = { date: '2026-12-01', time: null };
  const answers = await Promise.all(
    Array.from({ length: 20 }, () => planPiece(again(), idea.id, [world.channels.pithline], plan)),
  );
  expect(new Set(answers.map((answer) => valueOf(answer).postIds[0])).size).toBe(1);
  expect(await count('posts')).toBe(1);
});

it('copies are made once', async () => {
  const { id, version } = await world.makePost('pithline');
  const again = sameRequest();
  const copy = () =>
    changePosts(again(), world.brandId, [{ id, version }], { kind: 'copy', days: 7, channelIds: null });
  expect(valueOf(await copy())).toEqual(valueOf(await copy()));
  expect(await count('posts')).toBe(2);
});

it('what was refused is asked anew, and another person’s key is another’s', async () => {
  const again = sameRequest();
  expect(codeOf(await catchIdea(again(), { brandId: world.brandId, title: ' ' }))).toBe('emptyTitle');
  const { key } = again().request!;
  valueOf(await catchIdea(again(), { brandId: world.brandId, title: 'Rings' }));
  valueOf(
    await catchIdea({ ...world.otherWork, request: { key, parts: 0 } }, { brandId: world.brandId, title: 'Rings' }),
  );
  expect(await count('pieces')).toBe(2);
});
