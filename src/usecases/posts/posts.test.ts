import { AS_IT_IS } from '@/core/media/fit';
import { NO_FILTER } from '@/core/calendar/filter';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { listIdeas, maybePiece } from '@/data/pieces/pieces';
import { maybeDeliveryOfPost } from '@/data/delivery/deliveries';
import { bringPieceBack, catchIdea, deletePiece, editPiece, restorePiece, setPieceAside } from '../pieces/pieces';
import { attachPicture, describePicture, removePicture, setRecipe } from '../media/pictures';
import { movePost, planPiece } from './planPosts';
import { declareOut, publishNow, schedulePost } from '../delivery/schedule';
import { archivePost, bringPostBack, deletePost, putAtStage, restorePost, setPostAside } from './stages';
import { codeOf, makeWorld, START, valueOf, type TestWorld } from '../testWorld';
import { loadCalendar } from '../calendar/loadCalendar';
import { loadSheet } from './loadPosts';
import { loadDepartures } from '../delivery/loadDepartures';
import { editPost } from '../captions/editPost';
import { listChannels } from '@/data/brands/channels';
import { oneBrand } from '@/data/brands/brands';

let world: TestWorld;
beforeEach(async () => void (world = await makeWorld()));
afterEach(() => world.close());

const ideas = async () => (await listIdeas(world.db, [world.brandId], 10)).map((piece) => piece.title);
const picture = {
  sha256: 'a'.repeat(64),
  mime: 'image/jpeg',
  width: 1120,
  height: 1120,
  bytes: 100,
  fileName: 'a.jpg',
  durationMs: null,
};

describe('ideas', () => {
  it('are caught by a title, belong to who caught them, and stay until every suggested channel has its post', async () => {
    const { pithline, glassrow } = world.channels;
    const idea = valueOf(
      await catchIdea(world.otherWork, {
        brandId: world.brandId,
        title: ' Moon  night ',
        channelIds: [pithline, glassrow],
      }),
    );
    expect(idea).toMatchObject({ title: 'Moon night', ownerId: world.otherWork.actorId });
    valueOf(await planPiece(world.work, idea.id, [pithline], { date: '2026-11-24', time: null }));
    expect(await ideas()).toEqual(['Moon night']);
    const { version } = (await maybePiece(world.db, idea.id))!;
    valueOf(await editPiece(world.work, idea.id, version, { channelIds: [] }));
    expect(await ideas()).toEqual([]);
  });

  it('are set aside, brought back, deleted and restored', async () => {
    const { id } = valueOf(await catchIdea(world.work, { brandId: world.brandId, title: 'Moon' }));
    valueOf(await setPieceAside(world.work, id, 'not now'));
    expect(await ideas()).toEqual([]);
    expect((await listIdeas(world.db, [world.brandId], 10, true)).map((piece) => piece.setAsideReason)).toEqual([
      'not now',
    ]);
    valueOf(await bringPieceBack(world.work, id));
    valueOf(await deletePiece(world.work, id));
    expect(await ideas()).toEqual([]);
    valueOf(await restorePiece(world.work, id));
    expect(await ideas()).toEqual(['Moon']);
  });

  it('refuse what is no idea', async () => {
    const catchIt = (change: object) => catchIdea(world.work, { brandId: world.brandId, title: 'Moon', ...change });
    expect(codeOf(await catchIt({ title: '   ' }))).toBe('emptyTitle');
    expect(codeOf(await catchIt({ link: 'moon' }))).toBe('badLink');
    expect(codeOf(await catchIt({ note: 'x'.repeat(20_001) }))).toBe('textTooLong');
    expect(codeOf(await catchIt({ channelIds: [world.otherChannelId] }))).toBe('foreignChannel');
    expect(codeOf(await catchIdea(world.otherWork, { brandId: world.otherBrandId, title: 'Moon' }))).toBe('notYours');
    expect(await ideas()).toEqual([]);
  });

  it('refuse a change that is based on an older version', async () => {
    const { id } = valueOf(await catchIdea(world.work, { brandId: world.brandId, title: 'Moon' }));
    valueOf(await editPiece(world.work, id, 1, { title: 'Moon night' }));
    expect(codeOf(await editPiece(world.otherWork, id, 1, { title: 'Moon day' }))).toBe('stale');
  });

  it('are not deleted while they have posts', async () => {
    const post = await world.makePost('pithline');
    expect(codeOf(await deletePiece(world.work, post.pieceId))).toBe('hasPosts');
  });
});

describe('planning', () => {
  it('makes one post for each channel, or none at all', async () => {
    const { id } = valueOf(
      await catchIdea(world.work, { brandId: world.brandId, title: 'Moon', link: 'https://a.example' }),
    );
    const { pithline, glassrow } = world.channels;
    const plan = (channelIds: string[], date: string | null = '2026-11-24', time: string | null = null) =>
      planPiece(world.work, id, channelIds, { date, time });
    expect(codeOf(await plan([]))).toBe('noChannel');
    expect(codeOf(await plan([pithline, world.otherChannelId]))).toBe('foreignChannel');
    expect(codeOf(await plan([pithline], '2026-11-22'))).toBe('past');
    expect(codeOf(await plan([pithline], '2027-03-28', '01:30'))).toBe('skippedTime');
    const made = valueOf(await plan([pithline, glassrow]));
    const posts = await Promise.all(made.postIds.map(world.post));
    expect(posts.map(({ channelId, format, stage, link }) => ({ channelId, format, stage, link }))).toEqual([
      { channelId: pithline, format: 'text', stage: 'drafting', link: 'https://a.example' },
      { channelId: glassrow, format: 'photo', stage: 'drafting', link: 'https://a.example' },
    ]);
  });

  it('keeps the time when only the day changes, and drops both in the tray', async () => {
    const post = await world.makePost('pithline');
    valueOf(await movePost(world.work, post.id, post.version, { date: '2026-11-27' }));
    expect(await world.post(post.id)).toMatchObject({ date: '2026-11-27', time: '14:30' });
    expect(codeOf(await movePost(world.work, post.id, post.version, { date: '2026-11-28' }))).toBe('stale');
    valueOf(await movePost(world.work, post.id, post.version + 1, { date: null }));
    expect(await world.post(post.id)).toMatchObject({ date: null, time: null });
  });

  it('re-times a scheduled post, and unschedules it in the tray', async () => {
    const post = await world.makePost('pithline');
    valueOf(await schedulePost(world.work, post.id, post.version));
    expect(valueOf(await movePost(world.work, post.id, post.version + 1, { date: '2026-11-27' }))).toMatchObject({
      unscheduled: false,
      retimed: true,
    });
    expect(await maybeDeliveryOfPost(world.db, post.id)).toMatchObject({
      state: 'waiting',
      dueAt: '2026-11-27T14:30:00.000Z',
    });
    expect(codeOf(await movePost(world.work, post.id, post.version + 2, { date: '2026-11-23', time: '08:00' }))).toBe(
      'past',
    );
    expect(valueOf(await movePost(world.work, post.id, post.version + 2, { date: null }))).toMatchObject({
      unscheduled: true,
      retimed: false,
    });
    expect(await world.post(post.id)).toMatchObject({ stage: 'ready', date: null });
    expect(await maybeDeliveryOfPost(world.db, post.id)).toBeUndefined();
  });
});

describe('one title', () => {
  const edit = async (id: string, change: Parameters<typeof editPost>[3]) =>
    valueOf(await editPost(world.work, id, (await world.post(id)).version, change));
  it('is the piece’s, and the title field of its network begins as it and follows it until somebody writes another', async () => {
    const { id: pieceId } = valueOf(await catchIdea(world.work, { brandId: world.brandId, title: 'Rings' }));
    const { corkwall, pithline } = world.channels;
    const plan = { date: '2026-12-01', time: null };
    const { postIds } = valueOf(await planPiece(world.work, pieceId, [corkwall, pithline], plan));
    const titles = async () =>
      Promise.all(postIds.map(async (id) => world.post(id).then(({ title, headline }) => [title, headline])));
    expect(await titles()).toEqual([
      ['Rings', 'Rings'],
      ['Rings', ''],
    ]);
    for (const id of postIds) await edit(id, { title: 'Thin rings' });
    expect(await titles()).toEqual([
      ['Thin rings', 'Thin rings'],
      ['Thin rings', ''],
    ]);
    await edit(postIds[0]!, { headline: 'Look up' });
    for (const id of postIds) await edit(id, { title: '  ' });
    expect(await titles()).toEqual([
      ['Rings', 'Look up'],
      ['Rings', ''],
    ]);
  });
});

describe('writing', () => {
  it('saves fields one by one and refuses a stale save with nothing written', async () => {
    const post = await world.makePost('pithline');
    valueOf(await editPost(world.work, post.id, post.version, { caption: 'First' }));
    expect(codeOf(await editPost(world.otherWork, post.id, post.version, { caption: 'Second' }))).toBe('stale');
    expect((await world.post(post.id)).caption).toBe('First');
  });

  it.each([
    ['a million characters', { caption: 'x'.repeat(1_000_000) }, 'textTooLong'],
    ['a title of 300 letters', { title: 'x'.repeat(300) }, 'longTitle'],
    ['a format the network does not take', { format: 'newsletter' as const }, 'format'],
    ['an owner from nowhere', { ownerId: '00000000-0000-0000-0000-000000000001' }, 'foreignOwner'],
  ])('refuses %s', async (_name, edit, code) => {
    const post = await world.makePost('pithline');
    expect(codeOf(await editPost(world.work, post.id, post.version, edit))).toBe(code);
    expect((await world.post(post.id)).version).toBe(post.version);
  });

  it('takes a ready post back to production when it does not fit any more', async () => {
    const post = await world.makePost('pithline');
    valueOf(await putAtStage(world.work, post.id, post.version, 'ready'));
    expect(valueOf(await editPost(world.work, post.id, post.version + 1, { caption: 'x'.repeat(321) }))).toMatchObject({
      tookBack: true,
      missing: 'Caption: Pithline takes 320, this has 321.',
    });
    expect((await world.post(post.id)).stage).toBe('production');
  });

  it('keeps what leaves apart from what is written after scheduling', async () => {
    const post = await world.makePost('pithline');
    valueOf(await schedulePost(world.work, post.id, post.version));
    valueOf(await editPost(world.work, post.id, post.version + 1, { caption: 'Other words' }));
    const sheet = (await loadSheet(world.db, post.id))!;
    expect(sheet).toMatchObject({
      stage: 'scheduled',
      caption: 'Other words',
      delivery: { differs: true, copy: { caption: post.caption } },
    });
    valueOf(await schedulePost(world.work, post.id, post.version + 2));
    expect((await loadSheet(world.db, post.id))!.delivery).toMatchObject({
      differs: false,
      copy: { caption: 'Other words' },
    });
  });
});

describe('pictures', () => {
  it('are attached, described and taken away', async () => {
    const post = await world.makePost('glassrow');
    expect(codeOf(await schedulePost(world.work, post.id, post.version))).toBe('blocked');
    const { pictureId: id } = valueOf(await attachPicture(world.work, post.id, picture, ''));
    valueOf(await describePicture(world.work, post.id, id, ' The dome '));
    expect((await loadSheet(world.db, post.id))!.pictures).toMatchObject([{ sha256: picture.sha256, alt: 'The dome' }]);
    const { version } = await world.post(post.id);
    valueOf(await schedulePost(world.work, post.id, version));
    valueOf(await removePicture(world.work, post.id, id));
    expect((await loadSheet(world.db, post.id))!.delivery).toMatchObject({ differs: true });
    expect(codeOf(await removePicture(world.work, post.id, id))).toBe('notFound');
  });
  it('of a wrong shape keep a post from leaving until they are cropped; the crop leaves with the copy', async () => {
    const post = await world.makePost('glassrow');
    const { pictureId: id } = valueOf(
      await attachPicture(world.work, post.id, { ...picture, height: 2_160 }, 'The dome'),
    );
    const crop = { x: 0, y: 0.25, width: 1, height: 0.5 };
    expect(codeOf(await schedulePost(world.work, post.id, (await world.post(post.id)).version))).toBe('blocked');
    const set = (recipe: Parameters<typeof setRecipe>[3]) => setRecipe(world.work, post.id, id, recipe);
    expect(codeOf(await set({ ...AS_IT_IS, crop: { ...crop, y: 0.8 } }))).toBe('badCrop');
    expect(codeOf(await set({ ...AS_IT_IS, toMime: 'text/html' }))).toBe('badType');
    expect(codeOf(await set({ ...AS_IT_IS, toBytes: 3 }))).toBe('badBytes');
    valueOf(await set({ ...AS_IT_IS, crop }));
    valueOf(await schedulePost(world.work, post.id, (await world.post(post.id)).version));
    const delivery = (await maybeDeliveryOfPost(world.db, post.id))!;
    expect(delivery.parcel.pictures[0]!.recipe).toEqual({ ...AS_IT_IS, crop });
    valueOf(await set(AS_IT_IS));
    expect((await loadSheet(world.db, post.id))!.delivery).toMatchObject({ differs: true });
  });
});

describe('stages', () => {
  it('set aside needs a reason, takes a scheduled post out, and comes back as ready', async () => {
    const post = await world.makePost('pithline');
    valueOf(await schedulePost(world.work, post.id, post.version));
    expect(codeOf(await setPostAside(world.work, post.id, post.version + 1, ' '))).toBe('noReason');
    expect(valueOf(await setPostAside(world.work, post.id, post.version + 1, 'no time'))).toMatchObject({
      unscheduled: true,
      mayBeOut: false,
    });
    expect(await maybeDeliveryOfPost(world.db, post.id)).toBeUndefined();
    valueOf(await bringPostBack(world.work, post.id, post.version + 2));
    expect(await world.post(post.id)).toMatchObject({ stage: 'ready', setAsideReason: '' });
  });

  it('deletes and restores; what is published is archived instead', async () => {
    const post = await world.makePost('pithline');
    expect(codeOf(await archivePost(world.work, post.id, post.version, true))).toBe('notPublished');
    valueOf(await deletePost(world.work, post.id, post.version));
    expect(codeOf(await editPost(world.work, post.id, post.version + 1, { caption: 'x' }))).toBe('notFound');
    valueOf(await restorePost(world.work, post.id));
    expect(codeOf(await declareOut(world.work, post.id, post.version + 2, 'somewhere'))).toBe('badAddress');
    valueOf(await declareOut(world.work, post.id, post.version + 2, 'https://a.example/1'));
    expect(await world.post(post.id)).toMatchObject({
      stage: 'published',
      address: 'https://a.example/1',
      date: '2026-11-23',
    });
    expect(codeOf(await deletePost(world.work, post.id, post.version + 3))).toBe('published');
    expect(codeOf(await editPost(world.work, post.id, post.version + 3, { caption: 'x' }))).toBe('published');
    valueOf(await archivePost(world.work, post.id, post.version + 3, true));
  });

  it('is declared out without an address, on the day it went out, and by nobody for a time to come', async () => {
    const post = await world.makePost('pithline', { date: '2026-11-30', time: '10:00' });
    const out = (date: string, time = '08:00') => declareOut(world.work, post.id, post.version, '', { date, time });
    expect(codeOf(await out('2026-11-23', '09:30'))).toBe('notYet');
    valueOf(await out('2026-11-20'));
    expect(await world.post(post.id)).toMatchObject({
      ...{ stage: 'published', address: '', date: '2026-11-20', time: '08:00' },
      publishedAt: '2026-11-20T08:00:00.000Z',
    });
  });

  it('belongs to those who work for the brand', async () => {
    const other = valueOf(await catchIdea(world.work, { brandId: world.otherBrandId, title: 'Seals' }));
    const { postIds } = valueOf(
      await planPiece(world.work, other.id, [world.otherChannelId], { date: null, time: null }),
    );
    const [id] = postIds;
    expect(codeOf(await editPost(world.otherWork, id!, 1, { caption: 'x' }))).toBe('notYours');
  });
});

describe('views', () => {
  it('shows a month and the tray', async () => {
    const dated = await world.makePost('pithline');
    const undated = await world.makePost('corkwall', { date: null, time: null });
    valueOf(await catchIdea(world.work, { brandId: world.brandId, title: 'An idea' }));
    const brand = await oneBrand(world.db, world.brandId);
    const channels = await listChannels(world.db, world.brandId);
    const ask = { arrangement: 'month', date: '2026-11-01', weeks: 1, filter: NO_FILTER } as const;
    const { slips, ideas } = await loadCalendar(world.db, [brand], channels, ask, START);
    expect(slips.map(({ id, callSign, missing }) => ({ id, callSign, missing }))).toEqual([
      { id: dated.id, callSign: 'PL', missing: null },
      { id: undated.id, callSign: 'CW', missing: 'no picture' },
    ]);
    expect(ideas.map(({ title }) => title)).toEqual(['An idea']);
  });

  it('shows departures, by hand ones with their hand-over, overdue ones first', async () => {
    const byHand = await world.makePost('homestoop', { date: '2026-11-23', time: '12:00' });
    valueOf(await schedulePost(world.work, byHand.id, byHand.version));
    const draft = await world.makePost('pithline', { date: '2026-11-24', time: '10:00' }, '');
    const brand = await oneBrand(world.db, world.brandId);
    world.goTo('2026-11-24T09:00:00.000Z');
    const board = await loadDepartures(world.db, brand, world.work.clock.now());
    expect(board.map(({ slip, fitness, reason }) => ({ id: slip.id, fitness, reason }))).toEqual([
      { id: byHand.id, fitness: 'handOver', reason: '' },
      { id: draft.id, fitness: 'notFit', reason: 'Pithline needs a caption.' },
    ]);
    expect(board[0]!.handOver).toEqual({ texts: [{ label: 'Caption', text: byHand.caption }], pictures: [] });
    const { version } = await world.post(byHand.id);
    valueOf(await declareOut(world.work, byHand.id, version, 'https://stoop.example/1'));
    expect(await maybeDeliveryOfPost(world.db, byHand.id)).toMatchObject({ state: 'sent' });
  });

  it('publishes now, as of this moment', async () => {
    const post = await world.makePost('pithline', { date: null, time: null });
    expect(valueOf(await publishNow(world.work, post.id, post.version))).toEqual({ dueAt: '2026-11-23T09:00:00.000Z' });
    expect(await world.post(post.id)).toMatchObject({ stage: 'scheduled', date: '2026-11-23', time: '09:00' });
  });
});
