import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { BLANK_STEP, type PrepLine } from '@/core/prep/step';
import { listStepsOf } from '@/data/prep/steps';
import { changePosts } from '../calendar/changePosts';
import { undoChange } from '../undo/undoChange';
import { editPost } from '../captions/editPost';
import { catchIdea } from '../pieces/pieces';
import { planPiece } from '../posts/planPosts';
import { putAtStage } from '../posts/stages';
import { loadSheet, loadSlip } from '../posts/loadPosts';
import { codeOf, makeWorld, valueOf, type TestWorld } from '../testWorld';
import { addStep, setPrepSheet, tickStep } from './prep';

let world: TestWorld;
const line = (title: string, more: Partial<PrepLine> = {}): PrepLine => ({ ...BLANK_STEP, title, ...more });

beforeEach(async () => {
  world = await makeWorld();
  const set = async (subject: 'text' | 'thread', lines: PrepLine[]) => {
    world.work.seen = 0;
    valueOf(await setPrepSheet(world.work, world.brandId, subject, lines));
  };
  await set('text', [
    line('Write it', { lead: 3, ticksItself: true }),
    line('Proofread', { lead: 2 }),
    line('Pin it', { lead: 1 }),
  ]);
  await set('thread', [line('Write the parts', { lead: 4 }), line('Proofread', { lead: 2 })]);
});
afterEach(() => world.close());

const steps = async (postId: string) =>
  (await listStepsOf(world.db, [postId])).map(({ title, doneAt }) => `${title}${doneAt ? ' ✓' : ''}`);
const idOf = async (postId: string, title: string) =>
  (await listStepsOf(world.db, [postId])).find((step) => step.title === title)!.id;
/** A post of which nothing is written yet. */
async function makePost() {
  const { id: pieceId } = valueOf(await catchIdea(world.work, { brandId: world.brandId, title: 'Rings' }));
  const plan = { date: '2026-12-10', time: null };
  const { postIds } = valueOf(await planPiece(world.work, pieceId, [world.channels.pithline], plan));
  return world.post(postIds[0]!);
}

describe('prep follows the format of its post', () => {
  it('what was done stays, what somebody added stays, what the new format lacks goes', async () => {
    const { id, version } = await makePost();
    valueOf(await tickStep(world.work, await idOf(id, 'Write it'), true));
    valueOf(await addStep(world.work, { postId: id }, line('Ask the curator', { lead: 5 })));
    const proof = await idOf(id, 'Proofread');
    valueOf(await editPost(world.work, id, version, { format: 'thread' }));
    expect(await steps(id)).toEqual(['Ask the curator', 'Write the parts', 'Write it ✓', 'Proofread']);
    expect(await idOf(id, 'Proofread')).toBe(proof);
    expect((await listStepsOf(world.db, [id])).every(({ day }) => day !== null)).toBe(true);
  });

  it('and back, when that is undone', async () => {
    const { id, version } = await makePost();
    valueOf(await editPost(world.work, id, version, { format: 'thread' }));
    valueOf(await undoChange(world.work, world.brandId, null));
    expect(await steps(id)).toEqual(['Write it', 'Proofread', 'Pin it']);
  });

  it('of many at once that go to another channel too', async () => {
    const posts = [await makePost(), await makePost()];
    valueOf(
      await changePosts(world.work, world.brandId, posts, {
        kind: 'place',
        date: '2026-12-11',
        channelId: world.channels.corkwall,
      }),
    );
    for (const { id } of posts) {
      expect((await world.post(id)).format).toBe('boardPicture');
      expect(await steps(id)).toEqual(['Write title and text', 'Make the image']);
    }
  });
});

describe('a step that ticks itself', () => {
  it('is ticked by whoever did its work, for the day of the brand, and keeps whose it is', async () => {
    const { id, version } = await makePost();
    expect(await steps(id)).toContain('Write it');
    valueOf(await editPost(world.otherWork, id, version, { caption: 'Rings tonight' }));
    const step = (await listStepsOf(world.db, [id])).find(({ title }) => title === 'Write it')!;
    expect(step).toMatchObject({ doneOn: '2026-11-23', doneBy: world.otherWork.actorId, ownerId: world.work.actorId });
    expect(await steps(id)).toEqual(['Write it ✓', 'Proofread', 'Pin it']);
  });

  it('stays open once somebody took the tick off', async () => {
    const { id, version } = await makePost();
    valueOf(await editPost(world.work, id, version, { caption: 'Rings' }));
    valueOf(await tickStep(world.work, await idOf(id, 'Write it'), false));
    valueOf(await editPost(world.work, id, version + 1, { caption: 'Rings tonight' }));
    expect(await steps(id)).toContain('Write it');
  });
});

describe('a needed step of a piece', () => {
  it('holds up its posts as their own do, until it is done', async () => {
    const { id, version, pieceId } = await makePost();
    valueOf(await editPost(world.work, id, version, { caption: 'Rings' }));
    const asked = line('Ask for the rights', { needed: true });
    const step = valueOf(await addStep(world.work, { pieceId }, asked)).id;
    valueOf(await addStep(world.work, { pieceId }, line('Thank the guest', { needed: true, lead: -2 })));
    expect((await loadSheet(world.db, id))!.pieceNeeds).toEqual([
      { id: step, title: 'Ask for the rights', ofPiece: true },
    ]);
    const refused = await putAtStage(world.work, id, version + 1, 'ready');
    expect(refused).toMatchObject({
      ok: false,
      refusal: { message: expect.stringContaining('“Ask for the rights” of its piece is not done.') },
    });
    valueOf(await tickStep(world.work, step, true));
    valueOf(await putAtStage(world.work, id, version + 1, 'ready'));
    expect((await world.post(id)).stage).toBe('ready');
  });
});

it('a slip shows that nobody signed its post off, where the brand asks for it and it stands before that', async () => {
  const { id, version } = await makePost();
  valueOf(await editPost(world.work, id, version, { caption: 'Rings' }));
  await world.db.run('update brands set asks_sign_off = true where id = $1', [world.brandId]);
  const missing = async () => (await loadSlip(world.db, id))!.missing;
  expect(await missing()).toBeNull();
  valueOf(await putAtStage(world.work, id, version + 1, 'signOff'));
  expect(await missing()).toBe('no sign-off');
  expect(codeOf(await putAtStage(world.work, id, version + 2, 'ready'))).toBe('wanted');
});
