import { randomUUID } from 'node:crypto';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { Change } from '@/core/calendar/change';
import { maybeDeliveryOfPost } from '@/data/delivery/deliveries';
import type { Post } from '@/data/posts/posts';
import { savePillar } from '@/data/brands/themes';
import { changePosts } from './changePosts';
import { undoChange } from '../undo/undoChange';
import { schedulePost } from '../delivery/schedule';
import { codeOf, makeWorld, valueOf, type TestWorld } from '../testWorld';
import { editPost } from '../captions/editPost';
import { movePost } from '../posts/planPosts';

let world: TestWorld;
beforeEach(async () => {
  world = await makeWorld();
});
afterEach(() => world.close());

const change = (posts: readonly Post[], what: Change, work = world.work) =>
  changePosts(
    work,
    world.brandId,
    posts.map(({ id, version }) => ({ id, version })),
    what,
  );
const undo = (changeId: string | null = null, work = world.work) => undoChange(work, world.brandId, changeId);
const stateOf = async (id: string) => {
  const { date, time, stage, channelId, format } = await world.post(id);
  return { date, time, stage, channelId, format };
};

describe('a change of many', () => {
  it('moves what may be moved and names what may not, in one message', async () => {
    const soon = await world.makePost('pithline', { date: '2026-11-25', time: '10:00' });
    const later = await world.makePost('pithline', { date: '2026-12-02', time: '10:00' });
    const undated = await world.makePost('pithline', { date: null, time: null });
    const outcome = valueOf(await change([soon, later, undated], { kind: 'shift', days: -7 }));
    expect(outcome.label).toBe('Moved 1 post 7 days earlier');
    expect(outcome.postIds).toEqual([later.id]);
    expect(outcome.refused.map(({ postId, message }) => [postId, message])).toEqual([
      [soon.id, '2026-11-18 has passed. A post can be planned for today or later.'],
      [undated.id, 'It has no date to move from.'],
    ]);
    expect((await world.post(later.id)).date).toBe('2026-11-25');
    expect((await world.post(soon.id)).date).toBe('2026-11-25');
  });

  it('undoes all of it, but what was changed since', async () => {
    const a = await world.makePost('pithline', { date: '2026-11-25', time: '10:00' });
    const b = await world.makePost('pithline', { date: '2026-11-26', time: '10:00' });
    valueOf(await change([a, b], { kind: 'shift', days: 2 }));
    const moved = await world.post(b.id);
    valueOf(await movePost(world.otherWork, b.id, moved.version, { date: '2026-11-30' }));
    const undone = valueOf(await undo());
    expect(undone.label).toBe('Undone: moved 2 posts 2 days later');
    expect(undone.refused).toEqual([
      { postId: b.id, title: b.title, message: 'It was changed since, so it stays as it is.' },
    ]);
    expect([(await world.post(a.id)).date, (await world.post(b.id)).date]).toEqual(['2026-11-25', '2026-11-30']);
  });

  it('undoes the last fifty of this person, the newest first, and no more', async () => {
    let post = await world.makePost('pithline', { date: '2026-12-01', time: '10:00' });
    for (let n = 0; n < 52; n++) {
      valueOf(await change([post], { kind: 'shift', days: 1 }));
      post = await world.post(post.id);
    }
    expect(codeOf(await undo(null, world.otherWork))).toBe('nothingToUndo');
    const dates: (string | null)[] = [];
    for (let n = 0; n < 50; n++) {
      const result = await undo();
      // Each undoing raises the version, so the one before it is stale unless versions are followed.
      dates.push(result.ok ? (await world.post(post.id)).date : result.refusal.code);
    }
    expect(dates[0]).toBe('2027-01-21');
    expect(dates.at(-1)).toBe('2026-12-03');
    expect(codeOf(await undo())).toBe('nothingToUndo');
  });

  it('sets time, stage, owner and pillar', async () => {
    const post = await world.makePost('pithline');
    const pillarId = randomUUID();
    await savePillar(world.db, { id: pillarId, brandId: world.brandId, name: 'Sky', color: '#123456' });
    for (const what of [
      { kind: 'time', time: '09:15' },
      { kind: 'stage', stage: 'ready' },
      { kind: 'owner', ownerId: world.otherWork.actorId },
      { kind: 'pillar', pillarId },
      { kind: 'title', title: ' A  new name ' },
    ] satisfies Change[])
      valueOf(await change([await world.post(post.id)], what));
    expect(await world.post(post.id)).toMatchObject({
      time: '09:15',
      stage: 'ready',
      ownerId: world.otherWork.actorId,
      pillarId,
      title: 'A new name',
    });
  });

  it('refuses a pillar and an owner of another brand, and too many at once', async () => {
    const post = await world.makePost('pithline');
    const pillarId = randomUUID();
    await savePillar(world.db, { id: pillarId, brandId: world.otherBrandId, name: 'Sky', color: '#123456' });
    expect(codeOf(await change([post], { kind: 'pillar', pillarId }))).toBe('otherBrand');
    expect(codeOf(await change([post], { kind: 'owner', ownerId: randomUUID() }))).toBe('foreignOwner');
    expect(codeOf(await change([], { kind: 'shift', days: 1 }))).toBe('nothing');
    expect(
      codeOf(
        await change(
          Array.from({ length: 501 }, () => post),
          { kind: 'shift', days: 1 },
        ),
      ),
    ).toBe('tooMany');
    expect(codeOf(await change([post], { kind: 'shift', days: 731 }))).toBe('tooFar');
  });

  it('is refused as stale where somebody else changed the post', async () => {
    const post = await world.makePost('pithline');
    valueOf(await editPost(world.otherWork, post.id, post.version, { caption: 'Other words' }));
    expect(codeOf(await change([post], { kind: 'shift', days: 1 }))).toBe('stale');
  });
});

describe('a post moved to another channel', () => {
  it('keeps its words, takes a format of that network, and says what does not fit', async () => {
    const post = await world.makePost('glassrow', { date: '2026-11-26', time: '14:30' }, 'x'.repeat(400));
    const outcome = valueOf(
      await change([post], { kind: 'place', date: '2026-11-27', channelId: world.channels.pithline }),
    );
    expect(await stateOf(post.id)).toEqual({
      date: '2026-11-27',
      time: '14:30',
      stage: 'drafting',
      channelId: world.channels.pithline,
      format: 'photo',
    });
    expect(outcome.notes.map(({ message }) => message)).toEqual(['Caption: Pithline takes 320, this has 400.']);
    valueOf(await undo());
    const there = await world.post(post.id);
    const toWall = await change([there], { kind: 'place', date: '2026-11-27', channelId: world.channels.corkwall });
    expect(valueOf(toWall).notes[0]!.message).toBe('Corkwall takes no photo, so it is a board picture now.');
    valueOf(await undo());
    expect(await stateOf(post.id)).toMatchObject({ channelId: world.channels.glassrow, format: 'photo' });
  });

  it('is refused for a channel of another brand', async () => {
    const post = await world.makePost('pithline');
    expect(codeOf(await change([post], { kind: 'place', date: '2026-11-27', channelId: world.otherChannelId }))).toBe(
      'foreignChannel',
    );
  });

  it('does not leave any more if it was scheduled', async () => {
    const post = await world.makePost('pithline');
    valueOf(await schedulePost(world.work, post.id, post.version));
    const scheduled = await world.post(post.id);
    valueOf(await change([scheduled], { kind: 'place', date: '2026-11-27', channelId: world.channels.homestoop }));
    expect(await maybeDeliveryOfPost(world.db, post.id)).toBeUndefined();
    expect((await world.post(post.id)).stage).not.toBe('scheduled');
  });
});

describe('scheduled posts', () => {
  it('re-time with a move, and back with its undoing', async () => {
    const post = await world.makePost('pithline');
    valueOf(await schedulePost(world.work, post.id, post.version));
    const outcome = valueOf(await change([await world.post(post.id)], { kind: 'shift', days: 1 }));
    expect(outcome.notes[0]!.message).toBe('It will be sent then, at 14:30.');
    expect((await maybeDeliveryOfPost(world.db, post.id))!.dueAt).toBe('2026-11-27T14:30:00.000Z');
    valueOf(await undo());
    expect((await maybeDeliveryOfPost(world.db, post.id))!.dueAt).toBe('2026-11-26T14:30:00.000Z');
    expect((await world.post(post.id)).stage).toBe('scheduled');
  });

  it('moved to the tray do not leave; undoing schedules them again', async () => {
    const post = await world.makePost('pithline');
    valueOf(await schedulePost(world.work, post.id, post.version));
    valueOf(await change([await world.post(post.id)], { kind: 'place', date: null }));
    expect(await maybeDeliveryOfPost(world.db, post.id)).toBeUndefined();
    valueOf(await undo());
    expect((await world.post(post.id)).stage).toBe('scheduled');
    expect((await maybeDeliveryOfPost(world.db, post.id))!.dueAt).toBe('2026-11-26T14:30:00.000Z');
  });

  it('are scheduled by the stage, and their undoing withdraws them', async () => {
    const post = await world.makePost('pithline');
    valueOf(await change([post], { kind: 'stage', stage: 'scheduled' }));
    expect(await maybeDeliveryOfPost(world.db, post.id)).toBeDefined();
    valueOf(await undo());
    expect(await maybeDeliveryOfPost(world.db, post.id)).toBeUndefined();
    expect((await world.post(post.id)).stage).toBe('drafting');
  });

  it('whose time has passed meanwhile come back, but not scheduled, and that is said', async () => {
    const post = await world.makePost('pithline');
    valueOf(await schedulePost(world.work, post.id, post.version));
    valueOf(await change([await world.post(post.id)], { kind: 'place', date: null }));
    world.goTo('2026-11-26T15:00:00.000Z');
    const undone = valueOf(await undo());
    expect(undone.notes[0]!.message).toContain('It is back, but not scheduled.');
    expect((await world.post(post.id)).stage).toBe('ready');
  });
});

describe('copies', () => {
  it('go to other channels as drafts with the same words, and undoing takes them away', async () => {
    const post = await world.makePost('pithline');
    const outcome = valueOf(
      await change([post], {
        kind: 'copy',
        days: 0,
        channelIds: [world.channels.corkwall, world.channels.pithline],
      }),
    );
    expect(outcome.label).toBe('Made 1 post for other channels');
    const copy = await world.post(outcome.postIds[0]!);
    expect(copy).toMatchObject({
      channelId: world.channels.corkwall,
      caption: post.caption,
      pieceId: post.pieceId,
      stage: 'drafting',
      date: post.date,
      format: 'boardPicture',
    });
    valueOf(await undo(outcome.changeId));
    expect((await world.post(copy.id)).deletedAt).not.toBeNull();
  });

  it('go a week on, on the same channel', async () => {
    const post = await world.makePost('pithline');
    const outcome = valueOf(await change([post], { kind: 'copy', days: 7, channelIds: null }));
    expect(await stateOf(outcome.postIds[0]!)).toMatchObject({
      date: '2026-12-03',
      time: '14:30',
      channelId: world.channels.pithline,
    });
    expect((await world.post(post.id)).version).toBe(post.version);
  });
});
