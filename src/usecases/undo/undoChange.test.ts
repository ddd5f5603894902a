import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { listStepsOf } from '@/data/prep/steps';
import { maybePiece } from '@/data/pieces/pieces';
import { BLANK_STEP } from '@/core/prep/step';
import { editPost } from '../captions/editPost';
import { schedulePost } from '../delivery/schedule';
import { catchIdea } from '../pieces/pieces';
import { movePost, planPiece } from '../posts/planPosts';
import { archivePost, bringPostBack, deletePost, putAtStage, setPostAside } from '../posts/stages';
import { addStep, changeStep, handStepsOver, removeStep, reorderSteps, tickStep } from '../prep/prep';
import { codeOf, makeWorld, valueOf, type TestWorld } from '../testWorld';
import { nextUndo } from './next';
import { undoChange } from './undoChange';

let world: TestWorld;
beforeEach(async () => {
  world = await makeWorld();
});
afterEach(() => world.close());

const undo = (changeId: string | null = null) => undoChange(world.work, world.brandId, changeId);
const next = async () => valueOf(await nextUndo(world.work, world.brandId)).undo;
const stateOf = async (id: string) => {
  const { date, time, stage, format, ownerId, deletedAt, setAsideReason } = await world.post(id);
  return { date, time, stage, format, ownerId, isDeleted: deletedAt !== null, setAsideReason };
};
async function makePost() {
  const { id, version } = await world.makePost('pithline', { date: '2026-12-01', time: '10:00' });
  await world.db.run('delete from steps where post_id = $1', [id]);
  valueOf(await editPost(world.work, id, version, { caption: 'Rings tonight' }));
  valueOf(await putAtStage(world.work, id, version + 1, 'ready'));
  await world.db.run('delete from changes', []);
  return world.post(id);
}

describe('what was done to one post', () => {
  it.each<[string, (id: string, version: number) => Promise<unknown>, string]>([
    ['its day', (id, v) => movePost(world.work, id, v, { date: '2026-12-03' }), 'Moved “Idea”'],
    ['taking its day', (id, v) => movePost(world.work, id, v, { date: null }), 'Moved “Idea” to the tray'],
    ['its stage', (id, v) => putAtStage(world.work, id, v, 'production'), 'Moved “Idea” to production'],
    ['scheduling', (id, v) => schedulePost(world.work, id, v), 'Moved “Idea” to scheduled'],
    ['setting aside', (id, v) => setPostAside(world.work, id, v, 'Rain'), 'Set “Idea” aside'],
    ['deleting', (id, v) => deletePost(world.work, id, v), 'Deleted “Idea”'],
    [
      'its owner',
      (id, v) => editPost(world.work, id, v, { ownerId: world.otherWork.actorId }),
      'Gave “Idea” another owner',
    ],
    ['its format', (id, v) => editPost(world.work, id, v, { format: 'thread' }), 'Gave “Idea” another format'],
  ])('%s is undone, and named before', async (_name, deed, label) => {
    const post = await makePost();
    const before = await stateOf(post.id);
    await deed(post.id, post.version);
    expect(await stateOf(post.id)).not.toEqual(before);
    const title = (await world.post(post.id)).title;
    expect(await next()).toBe(label.replace('Idea', title));
    valueOf(await undo());
    expect(await stateOf(post.id)).toEqual(before);
    expect(await next()).toBeNull();
    expect(codeOf(await undo())).toBe('nothingToUndo');
  });

  it('words that were written since stay, and do not stand in the way', async () => {
    const post = await makePost();
    valueOf(await movePost(world.work, post.id, post.version, { date: '2026-12-03' }));
    valueOf(await editPost(world.work, post.id, post.version + 1, { caption: 'Other words' }));
    valueOf(await undo());
    expect(await world.post(post.id)).toMatchObject({ date: '2026-12-01', caption: 'Other words' });
  });

  it('a day that somebody else gave it since stays, and is told', async () => {
    const post = await makePost();
    valueOf(await movePost(world.work, post.id, post.version, { date: '2026-12-03' }));
    valueOf(await movePost(world.otherWork, post.id, post.version + 1, { date: '2026-12-08' }));
    const { label, refused } = valueOf(await undo());
    expect(label).toBe('Nothing undone');
    expect(refused.map(({ message }) => message)).toEqual(['It was changed since, so it stays as it is.']);
    expect((await world.post(post.id)).date).toBe('2026-12-08');
  });

  it('a post that somebody deleted since stays as it was, and is told', async () => {
    const post = await makePost();
    valueOf(await movePost(world.work, post.id, post.version, { date: '2026-12-03' }));
    valueOf(await deletePost(world.otherWork, post.id, post.version + 1));
    expect(valueOf(await undo()).label).toBe('Nothing undone');
    expect(await stateOf(post.id)).toMatchObject({ date: '2026-12-03', isDeleted: true });
  });

  it('deleting a scheduled post is undone with its time to leave', async () => {
    const post = await makePost();
    valueOf(await schedulePost(world.work, post.id, post.version));
    const { version } = await world.post(post.id);
    valueOf(await deletePost(world.work, post.id, version));
    expect((await world.post(post.id)).stage).toBe('ready');
    valueOf(await undo());
    expect(await stateOf(post.id)).toMatchObject({ stage: 'scheduled', isDeleted: false });
  });

  it('one after the other, back to the first', async () => {
    const post = await makePost();
    valueOf(await movePost(world.work, post.id, post.version, { date: '2026-12-03' }));
    valueOf(await setPostAside(world.work, post.id, post.version + 1, 'Rain'));
    valueOf(await bringPostBack(world.work, post.id, post.version + 2));
    for (const stage of ['setAside', 'ready', 'ready']) {
      valueOf(await undo());
      expect((await world.post(post.id)).stage).toBe(stage);
    }
    expect((await world.post(post.id)).date).toBe('2026-12-01');
  });

  it('archiving what is published is undone', async () => {
    const { id } = await makePost();
    await world.db.run(`update posts set stage = 'published', published_at = $2 where id = $1`, [
      id,
      world.work.clock.now(),
    ]);
    const { version } = await world.post(id);
    valueOf(await archivePost(world.work, id, version, true));
    valueOf(await undo());
    expect((await world.post(id)).archivedAt).toBeNull();
  });
});

it('posts planned of an idea go, and the idea is suggested for its channels again', async () => {
  const { pithline, glassrow } = world.channels;
  const idea = valueOf(
    await catchIdea(world.work, { brandId: world.brandId, title: 'Moon', channelIds: [pithline, glassrow] }),
  );
  const plan = { date: '2026-12-01', time: null };
  const { postIds, changeId } = valueOf(await planPiece(world.work, idea.id, [pithline, glassrow], plan));
  const suggested = async () => [...(await maybePiece(world.db, idea.id))!.suggestedChannelIds].sort();
  expect(await suggested()).toEqual([]);
  expect(await next()).toBe('Planned “Moon”');
  const undone = valueOf(await undo(changeId));
  expect(undone.postIds).toEqual(postIds);
  expect((await world.post(postIds[0]!)).deletedAt).not.toBeNull();
  expect(await suggested()).toEqual([pithline, glassrow].sort());
});

describe('what was done to steps', () => {
  const titles = async (postId: string) =>
    (await listStepsOf(world.db, [postId])).map(({ title, doneAt }) => `${title}${doneAt ? ' ✓' : ''}`);

  it('is undone step by step', async () => {
    const { id: postId } = await makePost();
    await world.db.run('delete from steps where post_id = $1', [postId]);
    const add = async (title: string) => valueOf(await addStep(world.work, { postId }, { ...BLANK_STEP, title })).id;
    const [cut, cover] = [await add('Cut'), await add('Cover')];
    valueOf(await tickStep(world.work, cut, true));
    valueOf(await changeStep(world.work, cover, 1, { title: 'Cover picture' }));
    valueOf(await reorderSteps(world.work, { postId }, [cover, cut]));
    valueOf(await removeStep(world.work, cover));
    for (const [label, after] of [
      ['Removed the step “Cover picture”', ['Cover picture', 'Cut ✓']],
      ['Put steps in another order', ['Cut ✓', 'Cover picture']],
      ['Changed the step “Cover”', ['Cut ✓', 'Cover']],
      ['Ticked “Cut”', ['Cut', 'Cover']],
      ['Added the step “Cover”', ['Cut']],
    ] as const) {
      expect(await next()).toBe(label);
      expect(valueOf(await undo()).postIds).toEqual([postId]);
      expect(await titles(postId)).toEqual(after);
    }
  });

  it('a tick that somebody else took off since stays off, and is told', async () => {
    const { id: postId } = await makePost();
    const { id } = valueOf(await addStep(world.work, { postId }, { ...BLANK_STEP, title: 'Cut' }));
    valueOf(await tickStep(world.work, id, true));
    valueOf(await tickStep(world.otherWork, id, false));
    expect(valueOf(await undo()).refused.map(({ title }) => title)).toEqual(['Cut']);
    expect(await titles(postId)).toContain('Cut');
  });

  it('steps that were reassigned go back to those who had them', async () => {
    const { id: postId } = await makePost();
    const add = async (ownerId: string) =>
      valueOf(await addStep(world.work, { postId }, { ...BLANK_STEP, title: 'Cut', ownerId })).id;
    const ids = [await add(world.work.actorId), await add(world.otherWork.actorId)];
    const owners = async () => (await listStepsOf(world.db, [postId])).map(({ ownerId }) => ownerId);
    const { count, changeId } = valueOf(await handStepsOver(world.work, ids, world.otherWork.actorId));
    expect(count).toBe(1);
    expect(await owners()).toEqual([world.otherWork.actorId, world.otherWork.actorId]);
    valueOf(await undo(changeId));
    expect(await owners()).toEqual([world.work.actorId, world.otherWork.actorId]);
  });
});
