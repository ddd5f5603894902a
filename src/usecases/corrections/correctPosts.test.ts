import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { cardColours } from '@/core/cards/card';
import { readSource } from '@/core/reading/readSource';
import { oneBrand } from '@/data/brands/brands';
import { maybeDeliveryOfPost } from '@/data/delivery/deliveries';
import { listPictures } from '@/data/media/media';
import { maybePiece } from '@/data/pieces/pieces';
import { editBrand } from '../brands/brands';
import { editPost } from '../captions/editPost';
import { attachCard } from '../cards/cards';
import { declareOut, schedulePost } from '../delivery/schedule';
import { bringSource } from '../extracts/bringSource';
import { changePosts } from '../calendar/changePosts';
import { catchIdea, editPiece } from '../pieces/pieces';
import { planPiece } from '../posts/planPosts';
import { loadSheet } from '../posts/loadPosts';
import { signPostOff } from '../posts/signOff';
import { makeWorld, valueOf, type TestWorld } from '../testWorld';
import { redoChange, undoChange } from '../undo/undoChange';
import { correctPosts, leaveAsTheyAre } from './correctPosts';
import { loadCorrections } from './reading';
import { settleCorrections } from './settleCorrections';

const TEXT = 'The walk begins at 14:30 at the harbour. Tickets cost €12 for grown-ups. Bring boots, the mud is deep.';

let world: TestWorld;
let pieceId: string;
let folder: string;
beforeEach(async () => {
  world = await makeWorld();
  folder = await mkdtemp(join(tmpdir(), 'bimlo-corrections-'));
  const piece = valueOf(await catchIdea(world.work, { brandId: world.brandId, title: 'Over the flats' }));
  pieceId = piece.id;
  await says(TEXT);
});
afterEach(async () => {
  await world.close();
  await rm(folder, { recursive: true, force: true });
});

const version = async () => (await maybePiece(world.db, pieceId))!.version;
const says = async (sourceText: string) =>
  valueOf(await editPiece(world.work, pieceId, await version(), { sourceText }));
const found = async () => valueOf(await loadCorrections(world.work, pieceId));
const fileWork = () => ({ ...world.work, folder });
const target = async (id: string) => ({ id, version: (await world.post(id)).version });
const correct = async (...ids: string[]) =>
  valueOf(await correctPosts(fileWork(), pieceId, await Promise.all(ids.map(target))));

async function postOf(caption: string, network: 'pithline' | 'glassrow' = 'pithline'): Promise<string> {
  const plan = { date: '2026-11-26', time: '14:30' };
  const [id] = valueOf(await planPiece(world.work, pieceId, [world.channels[network]], plan)).postIds;
  valueOf(await editPost(world.work, id!, (await world.post(id!)).version, { caption }));
  return id!;
}

describe('a piece that was corrected', () => {
  it('names the posts that say what it said, by whatever road, and none that do not', async () => {
    const [told, other] = [await postOf('We go at 14:30, from the harbour!'), await postOf('Boots, please.')];
    expect(await found()).toEqual([]);
    await says(TEXT.replace('14:30', '15:15'));
    expect(await found()).toMatchObject([
      { id: told, texts: [{ of: 'caption', after: 'We go at 15:15, from the harbour!' }], gone: [] },
    ]);
    const brought = valueOf(readSource(TEXT.replace('14:30', '16:00'), 'a.txt'));
    valueOf(await bringSource(world.work, pieceId, await version(), brought));
    expect(await found()).toMatchObject([{ id: told, texts: [{ after: 'We go at 16:00, from the harbour!' }] }]);
    expect((await loadSheet(world.db, other))!.isBehind).toBe(true);
    expect(await settleCorrections(world)).toBe(1);
    expect(await settleCorrections(world)).toBe(0);
    expect((await loadSheet(world.db, other))!.isBehind).toBe(false);
    expect((await loadSheet(world.db, told))!.isBehind).toBe(true);
  });

  it('names none any more once its text is back, or that is undone', async () => {
    const id = await postOf('We go at 14:30, from the harbour!');
    await says(TEXT.replace('14:30', '15:15'));
    await says(TEXT);
    expect([await found(), (await world.post(id)).madeOf]).toEqual([[], null]);
    const brought = valueOf(readSource(TEXT.replace('14:30', '16:00'), 'a.txt'));
    valueOf(await bringSource(world.work, pieceId, await version(), brought));
    expect(await found()).toHaveLength(1);
    valueOf(await undoChange(world.work, world.brandId, null));
    expect([await found(), (await world.post(id)).madeOf]).toEqual([[], null]);
  });

  it('names what was copied from a post that says what it said', async () => {
    const id = await postOf('€12 for grown-ups.');
    await says(TEXT.replace('€12', '€14'));
    const copy = { kind: 'copy', days: 7, channelIds: null } as const;
    const { postIds } = valueOf(await changePosts(world.work, world.brandId, [await target(id)], copy));
    expect((await found()).map((one) => one.id)).toEqual([id, ...postIds]);
  });

  it('compares each post with what the piece said when that one was made', async () => {
    const first = await postOf('At the harbour we go, 14:30.');
    await says(TEXT.replace('14:30', '15:15'));
    const second = await postOf('At the harbour we go, 15:15.');
    await says(TEXT.replace('14:30', '16:00'));
    const before = Object.fromEntries((await found()).map(({ id, texts }) => [id, texts[0]!.before]));
    expect(before).toEqual({ [first]: 'At the harbour we go, 14:30.', [second]: 'At the harbour we go, 15:15.' });
    expect((await found()).map(({ texts }) => texts[0]!.after)).toEqual(Array(2).fill('At the harbour we go, 16:00.'));
  });

  it('names those that say its title or link as they were', async () => {
    const id = await postOf('Over the flats: https://tide.example/walk');
    valueOf(await editPiece(world.work, pieceId, await version(), { link: 'https://tide.example/walk' }));
    await settleCorrections(world);
    valueOf(await editPiece(world.work, pieceId, await version(), { title: 'Across the flats' }));
    valueOf(await editPiece(world.work, pieceId, await version(), { link: 'https://tide.example/new' }));
    expect(await found()).toMatchObject([{ id, texts: [{ after: 'Across the flats: https://tide.example/new' }] }]);
  });
});

describe('posts that say what their piece said', () => {
  it('are corrected in one step that is undone and redone as one', async () => {
    const ids = [await postOf('€12 for grown-ups.'), await postOf('Tickets cost €12 for grown-ups. Come!')];
    await says(TEXT.replace('€12', '€14'));
    const { label, postIds } = await correct(...ids);
    expect([label, postIds]).toEqual(['Corrected 2 posts of “Over the flats”', ids]);
    const captions = () => Promise.all(ids.map(async (id) => (await world.post(id)).caption));
    expect(await captions()).toEqual(['€14 for grown-ups.', 'Tickets cost €14 for grown-ups. Come!']);
    expect(await found()).toEqual([]);
    valueOf(await undoChange(world.work, world.brandId, null));
    expect(await captions()).toEqual(['€12 for grown-ups.', 'Tickets cost €12 for grown-ups. Come!']);
    expect(await found()).toHaveLength(2);
    valueOf(await redoChange(world.work, world.brandId));
    expect([await captions(), await found()]).toEqual([
      ['€14 for grown-ups.', 'Tickets cost €14 for grown-ups. Come!'],
      [],
    ]);
  });

  it('are left as they are, published ones too, and then nothing is said about them', async () => {
    const [id, out] = [await postOf('€12 for grown-ups.'), await postOf('€12 for grown-ups!')];
    valueOf(await declareOut(world.work, out, (await world.post(out)).version, 'https://pith.example/1'));
    await says(TEXT.replace('€12', '€14'));
    expect((await found()).map(({ stage }) => stage).sort()).toEqual(['drafting', 'published']);
    expect((await correct(out)).refused).toHaveLength(1);
    valueOf(await leaveAsTheyAre(world.work, pieceId, await Promise.all([id, out].map(target))));
    expect([await found(), (await world.post(id)).caption]).toEqual([[], '€12 for grown-ups.']);
    valueOf(await undoChange(world.work, world.brandId, null));
    expect(await found()).toHaveLength(2);
  });

  it('are scheduled again with the new words where they were scheduled', async () => {
    const id = await postOf('€12 for grown-ups.');
    valueOf(await schedulePost(world.work, id, (await world.post(id)).version));
    await says(TEXT.replace('€12', '€14'));
    const { notes } = await correct(id);
    expect(notes.map(({ message }) => message)).toContain('It is scheduled again with the new words.');
    expect((await maybeDeliveryOfPost(world.db, id))!).toMatchObject({
      state: 'waiting',
      parcel: { words: { caption: '€14 for grown-ups.' } },
    });
    valueOf(await undoChange(world.work, world.brandId, null));
    expect((await world.post(id)).caption).toBe('€12 for grown-ups.');
  });

  it('ask for a sign-off again, and do not leave with the old words meanwhile', async () => {
    const brand = await oneBrand(world.db, world.brandId);
    valueOf(await editBrand(world.work, world.brandId, { ...brand, daysOff: [], asksSignOff: true }));
    const id = await postOf('€12 for grown-ups.');
    valueOf(await signPostOff(world.work, id, (await world.post(id)).version));
    valueOf(await schedulePost(world.work, id, (await world.post(id)).version));
    await says(TEXT.replace('€12', '€14'));
    const { notes } = await correct(id);
    expect(notes.map(({ message }) => message).join(' ')).toContain('not scheduled any more');
    expect(await loadSheet(world.db, id)).toMatchObject({
      stage: 'ready',
      delivery: null,
      signOff: { state: 'outdated' },
    });
  });

  it('have the words on their cards set again', async () => {
    const id = await postOf('Come along.', 'glassrow');
    const [colours] = cardColours([]);
    const card = { ...colours!, layout: 'ruled' as const, kind: 'number' as const, follows: null };
    const own = { ...card, width: 1_200, height: 1_200, text: '€12 for grown-ups', by: '', picture: null };
    valueOf(await attachCard(fileWork(), id, own, null));
    await says(TEXT.replace('€12', '€14'));
    expect(await found()).toMatchObject([{ texts: [{ of: 'card', number: 1, after: '€14 for grown-ups' }] }]);
    expect((await correct(id)).refused).toEqual([]);
    expect(await listPictures(world.db, id)).toMatchObject([
      { alt: '€14 for grown-ups', card: { text: '€14 for grown-ups' } },
    ]);
  });

  it('are refused where somebody changed them since, or the piece', async () => {
    const id = await postOf('€12 for grown-ups.');
    await says(TEXT.replace('€12', '€14'));
    const seen = await target(id);
    valueOf(await editPost(world.work, id, seen.version, { caption: '€12 for grown-ups, €6 for others.' }));
    const outcome = valueOf(await correctPosts(fileWork(), pieceId, [seen]));
    expect([outcome.postIds, outcome.refused]).toMatchObject([[], [{ postId: id }]]);
  });
});
