import { randomUUID } from 'node:crypto';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { Part } from '@/core/captions/compose';
import { maybeDeliveryOfPost } from '@/data/delivery/deliveries';
import { listWordsVersions } from '@/data/posts/wordsVersions';
import { attachPicture, describePicture, removePicture } from '../media/pictures';
import { schedulePost } from '../delivery/schedule';
import { loadSiblings } from './siblings';
import { setPostAside } from '../posts/stages';
import { codeOf, makeWorld, START, valueOf, type TestWorld } from '../testWorld';
import { loadSheet, loadSlip } from '../posts/loadPosts';
import { editPost, type PostEdit } from './editPost';

let world: TestWorld;
beforeEach(async () => {
  world = await makeWorld();
});
afterEach(() => world.close());

const edit = async (id: string, change: PostEdit, work = world.work) =>
  editPost(work, id, (await world.post(id)).version, change);
const part = (text: string, pictureId: string | null = null): Part => ({ id: randomUUID(), text, pictureId });
const FILE = {
  sha256: 'a'.repeat(64),
  mime: 'image/jpeg',
  width: 1200,
  height: 1200,
  bytes: 90_000,
  fileName: 'a.jpg',
  durationMs: null,
};

async function addPicture(id: string, letter = 'a'): Promise<string> {
  const { pictureId: added } = valueOf(await attachPicture(world.work, id, { ...FILE, sha256: letter.repeat(64) }, ''));
  valueOf(await describePicture(world.work, id, added, 'A dome'));
  return added;
}

describe('the texts of a format', () => {
  it('are kept, and those for its making never leave', async () => {
    const { id } = await world.makePost('glassrow');
    await addPicture(id);
    valueOf(await edit(id, { firstComment: 'Ask us anything', agenda: 'secret' }));
    valueOf(await schedulePost(world.work, id, (await world.post(id)).version));
    const { parcel } = (await maybeDeliveryOfPost(world.db, id))!;
    expect(parcel.texts).toContainEqual({ name: 'firstComment', text: 'Ask us anything' });
    expect(JSON.stringify(parcel)).not.toContain('secret');
    expect((await loadSheet(world.db, id))!.delivery!.differs).toBe(false);
    valueOf(await edit(id, { agenda: 'still secret' }));
    expect((await loadSheet(world.db, id))!.delivery!.differs).toBe(false);
    valueOf(await edit(id, { firstComment: 'Ask us nothing' }));
    expect((await loadSheet(world.db, id))!.delivery!.differs).toBe(true);
  });

  it('are refused by name when they are longer than what is kept', async () => {
    const { id } = await world.makePost('glassrow');
    const refused = await edit(id, { firstComment: 'x'.repeat(20_001) });
    expect(refused).toMatchObject({ ok: false, refusal: { code: 'textTooLong', field: 'firstComment' } });
    expect((await world.post(id)).firstComment).toBe('');
  });
});

describe('parts', () => {
  it('leave in their order, each slide with its picture', async () => {
    const { id } = await world.makePost('glassrow');
    valueOf(await edit(id, { format: 'carousel' }));
    const [one, two] = [await addPicture(id, 'a'), await addPicture(id, 'b')];
    const [first, second] = (await loadSheet(world.db, id))!.parts;
    expect([first, second].map((slide) => slide!.pictureId)).toEqual([one, two]);
    valueOf(await edit(id, { partTexts: { [second!.id]: 'Look up' } }));
    const [, written] = (await world.post(id)).parts;
    valueOf(await edit(id, { parts: [written!, first!] }));
    valueOf(await schedulePost(world.work, id, (await world.post(id)).version));
    const { parcel } = (await maybeDeliveryOfPost(world.db, id))!;
    expect(parcel.parts).toEqual([
      { text: 'Look up', picture: 0 },
      { text: '', picture: 1 },
    ]);
    expect(parcel.pictures.map(({ sha256 }) => sha256[0])).toEqual(['b', 'a']);
  });

  it('block scheduling while one says nothing, and the slip says which', async () => {
    const { id } = await world.makePost('pithline');
    valueOf(await edit(id, { format: 'thread', parts: [part('Second'), part(' ')] }));
    expect(codeOf(await schedulePost(world.work, id, (await world.post(id)).version))).toBe('blocked');
    expect((await loadSlip(world.db, id))!.missing).toBe('part 3 is empty');
  });

  it('go with a picture only where they are nothing else', async () => {
    const { id } = await world.makePost('glassrow');
    valueOf(await edit(id, { format: 'carousel' }));
    const [one, two] = [await addPicture(id, 'a'), await addPicture(id, 'b')];
    valueOf(await edit(id, { parts: [part('Kept', one), part('', two)] }));
    valueOf(await removePicture(world.work, id, one));
    valueOf(await removePicture(world.work, id, two));
    expect((await loadSheet(world.db, id))!.parts).toMatchObject([{ text: 'Kept', pictureId: null }]);
  });

  it.each([
    ['a picture of another post', async (own: string) => [part('x', randomUUID()), part('y', own)]],
    ['one picture twice', async (own: string) => [part('x', own), part('y', own)]],
    ['the same part twice', async () => Array.from({ length: 2 }, () => ({ ...part('x'), id: START_ID }))],
    ['more than a hundred', async () => Array.from({ length: 101 }, () => part('x'))],
  ])('with %s are refused', async (_what, make) => {
    const { id } = await world.makePost('glassrow');
    const own = await addPicture(id);
    expect(codeOf(await edit(id, { parts: await make(own) }))).toBe('badParts');
    expect((await world.post(id)).parts).toEqual([]);
  });

  it('that were taken away meanwhile are not written into', async () => {
    const { id } = await world.makePost('pithline');
    expect(codeOf(await edit(id, { partTexts: { [START_ID]: 'x' } }))).toBe('badParts');
  });
});

const START_ID = '33333333-3333-4333-8333-333333333333';

describe('Versions', () => {
  const captions = async (id: string) => (await listWordsVersions(world.db, id, 10)).map(({ words }) => words.caption);
  const minutesLater = (minutes: number) => world.goTo(new Date(Date.parse(START) + minutes * 60_000).toISOString());

  it('hold what one person wrote without a long pause as one, and what stood before the first', async () => {
    const { id } = await world.makePost('pithline');
    valueOf(await edit(id, { caption: 'One' }));
    minutesLater(5);
    valueOf(await edit(id, { caption: 'One two' }));
    expect(await captions(id)).toEqual(['One two', '']);
    minutesLater(16);
    valueOf(await edit(id, { caption: 'One two three' }));
    valueOf(await edit(id, { caption: 'Other' }, world.otherWork));
    expect(await captions(id)).toEqual(['Other', 'One two three', 'One two', '']);
  });

  it('are not made by an edit that changes no words', async () => {
    const { id } = await world.makePost('pithline');
    const before = await captions(id);
    valueOf(await edit(id, { title: 'Other', ownerId: world.otherWork.actorId }));
    expect(await captions(id)).toEqual(before);
  });
});

describe('siblings', () => {
  it('are the posts of a piece that can still be written', async () => {
    const post = await world.makePost('pithline');
    const other = await world.makePost('glassrow');
    expect((await loadSiblings(world.db, post.pieceId)).map(({ id }) => id)).toEqual([post.id]);
    valueOf(await setPostAside(world.work, other.id, (await world.post(other.id)).version, 'Cancel'));
    expect(await loadSiblings(world.db, other.pieceId)).toEqual([]);
  });
});
