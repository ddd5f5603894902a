import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { oneBrand, updateBrand } from '@/data/brands/brands';
import { insertPerson } from '@/data/people/people';
import { changePosts } from '../calendar/changePosts';
import { undoChange } from '../undo/undoChange';
import { editPost } from '../captions/editPost';
import { declareOut, publishNow, schedulePost } from '../delivery/schedule';
import { catchIdea } from '../pieces/pieces';
import { movePost } from '../posts/planPosts';
import { deletePost, putAtStage, setPostAside } from '../posts/stages';
import { codeOf, makeWorld, valueOf, type TestWorld } from '../testWorld';
import type { Work } from '../useCase';

const REVIEWER = '00000000-0000-4000-8000-00000000000e';
const LATER = { date: '2026-11-27', time: '10:00' };

let world: TestWorld;
let maker: Work;
let reviewer: Work;
beforeEach(async () => {
  world = await makeWorld();
  maker = world.otherWork;
  await insertPerson(world.db, { id: REVIEWER, slug: 'reva', name: 'Reva', role: 'reviewer', position: 2 }, [
    world.brandId,
  ]);
  reviewer = { ...world.work, actorId: REVIEWER };
});
afterEach(() => world.close());

/** Says whether the brand's makers send. */
async function letMakersSend(makersSend: boolean | null): Promise<void> {
  await updateBrand(world.db, world.brandId, { ...(await oneBrand(world.db, world.brandId)), makersSend });
}

/** A post that a manager scheduled, at its version. */
async function scheduled(): Promise<{ id: string; version: number }> {
  const post = await world.makePost('pithline');
  valueOf(await schedulePost(world.work, post.id, post.version));
  return world.post(post.id);
}

describe('a maker', () => {
  it('schedules, moves what is scheduled and takes it back, where the brand lets makers send', async () => {
    const { id, version } = await world.makePost('pithline');
    valueOf(await schedulePost(maker, id, version));
    valueOf(await movePost(maker, id, (await world.post(id)).version, LATER));
    valueOf(await putAtStage(maker, id, (await world.post(id)).version, 'ready'));
  });

  it('does none of that where it does not, by whatever road', async () => {
    await letMakersSend(false);
    const fresh = await world.makePost('pithline');
    const { id, version } = await scheduled();
    const asked = [
      await schedulePost(maker, fresh.id, fresh.version),
      await publishNow(maker, fresh.id, fresh.version),
      await declareOut(maker, fresh.id, fresh.version, 'https://a.example'),
      await movePost(maker, id, version, LATER),
      await movePost(maker, id, version, { date: null }),
      await putAtStage(maker, id, version, 'drafting'),
      await changePosts(maker, world.brandId, [{ id, version }], { kind: 'shift', days: 1 }),
      await changePosts(maker, world.brandId, [fresh], { kind: 'stage', stage: 'scheduled' }),
      await changePosts(maker, world.brandId, [{ id, version }], {
        kind: 'place',
        date: '2026-11-27',
        channelId: world.channels.homestoop,
      }),
    ];
    expect(asked.map(codeOf)).toEqual(asked.map(() => 'notYours'));
    expect(await world.post(id)).toMatchObject({ stage: 'scheduled', version });
  });

  it('still writes, plans and sets aside, and a post it brings back by undo is not scheduled by that', async () => {
    await letMakersSend(false);
    const { id, version } = await scheduled();
    valueOf(await editPost(maker, id, version, { caption: 'New words' }));
    valueOf(await setPostAside(maker, id, version + 1, 'Rain'));
    const { notes } = valueOf(await undoChange(maker, world.brandId, null));
    expect((await world.post(id)).stage).toBe('ready');
    expect(notes[0]!.message).toContain('It is back, but not scheduled. Only a manager');
    valueOf(await deletePost(maker, id, (await world.post(id)).version));
  });

  it('takes back a title it gave to what is scheduled, which goes on waiting to leave', async () => {
    await letMakersSend(false);
    const { id, version } = await scheduled();
    const { title } = await world.post(id);
    valueOf(await changePosts(maker, world.brandId, [{ id, version }], { kind: 'title', title: 'Mistyped' }));
    const { refused, notes } = valueOf(await undoChange(maker, world.brandId, null));
    expect({ refused, notes }).toEqual({ refused: [], notes: [] });
    expect(await world.post(id)).toMatchObject({ stage: 'scheduled', title });
  });

  it('does not send where the brand asks for sign-off and says nothing else', async () => {
    const post = await world.makePost('pithline');
    const brand = await oneBrand(world.db, world.brandId);
    await updateBrand(world.db, world.brandId, { ...brand, asksSignOff: true });
    expect(codeOf(await schedulePost(maker, post.id, post.version))).toBe('notYours');
  });
});

it('a reviewer changes nothing of a post, its piece or its plan', async () => {
  const { id, version } = await world.makePost('pithline');
  const asked = [
    await editPost(reviewer, id, version, { caption: 'Mine' }),
    await movePost(reviewer, id, version, LATER),
    await putAtStage(reviewer, id, version, 'ready'),
    await schedulePost(reviewer, id, version),
    await setPostAside(reviewer, id, version, 'No'),
    await deletePost(reviewer, id, version),
    await changePosts(reviewer, world.brandId, [{ id, version }], { kind: 'title', title: 'Mine' }),
    await catchIdea(reviewer, { brandId: world.brandId, title: 'Mine' }),
  ];
  expect(asked.map(codeOf)).toEqual(asked.map(() => 'notYours'));
  expect((await world.post(id)).version).toBe(version);
});
