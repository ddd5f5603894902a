import { mkdir, mkdtemp, readdir, rm, utimes, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { clearLooseFiles } from '@/data/media/clearFiles';
import { listLibrary } from '@/data/media/library';
import { picturePath } from '@/data/media/mediaPaths';
import { insertBrandAsset } from '@/data/brands/brandAssets';
import { attachFromLibrary, dropFromLibrary, keepInLibrary } from './library';
import { attachPicture, describePicture, removePicture } from './pictures';
import { schedulePost } from '../delivery/schedule';
import { setPostAside } from '../posts/stages';
import { codeOf, makeWorld, START, valueOf, type TestWorld } from '../testWorld';

let world: TestWorld;
beforeEach(async () => {
  world = await makeWorld();
});
afterEach(() => world.close());

const file = (letter: string, fileName: string) => ({
  sha256: letter.repeat(64),
  mime: 'image/jpeg',
  width: 1200,
  height: 1200,
  bytes: 90_000,
  fileName,
  durationMs: null,
});
const found = async (words = '', limit = 10) =>
  (await listLibrary(world.db, world.brandId, words, null, limit)).map(({ fileName, uses }) => [fileName, uses]);

describe('the library', () => {
  it('has each file once by its content, whatever it is called', async () => {
    expect(valueOf(await keepInLibrary(world.work, world.brandId, file('a', 'dome.jpg')))).toEqual({ isNew: true });
    expect(valueOf(await keepInLibrary(world.work, world.brandId, file('a', 'copy.jpg')))).toEqual({ isNew: false });
    expect(await found()).toEqual([['dome.jpg', 0]]);
    expect(await listLibrary(world.db, world.otherBrandId, '', null, 10)).toEqual([]);
    expect(codeOf(await keepInLibrary(world.otherWork, world.otherBrandId, file('a', 'x.jpg')))).toBe('notYours');
  });

  it('counts the posts that use a file, and names them', async () => {
    const [one, two] = [await world.makePost('glassrow'), await world.makePost('pithline')];
    for (const { id } of [one, one, two]) valueOf(await attachPicture(world.work, id, file('a', 'dome.jpg'), ''));
    const [entry] = await listLibrary(world.db, world.brandId, '', null, 10);
    expect(entry).toMatchObject({ uses: 2 });
    expect(new Set(entry!.usedIn.map(({ callSign }) => callSign))).toEqual(new Set(['GR', 'PL']));
    valueOf(await setPostAside(world.work, two.id, (await world.post(two.id)).version, 'Cancel'));
    expect(await found()).toEqual([['dome.jpg', 1]]);
  });

  it('is searched by name and by what is said of a picture', async () => {
    const { id } = await world.makePost('glassrow');
    valueOf(await keepInLibrary(world.work, world.brandId, file('a', 'star-trails_2.jpg')));
    const { pictureId: picture } = valueOf(await attachPicture(world.work, id, file('b', 'IMG0042.jpg'), ''));
    valueOf(await describePicture(world.work, id, picture, 'The dome at dusk'));
    expect(await found('trai')).toEqual([['star-trails_2.jpg', 0]]);
    expect(await found('dome dusk')).toEqual([['IMG0042.jpg', 1]]);
    expect(await found('nowhere')).toEqual([]);
  });

  it('comes page by page, the newest first', async () => {
    for (const letter of ['a', 'b', 'c']) {
      world.goTo(`2026-11-23T1${letter.charCodeAt(0) - 97}:00:00.000Z`);
      valueOf(await keepInLibrary(world.work, world.brandId, file(letter, `${letter}.jpg`)));
    }
    const first = await listLibrary(world.db, world.brandId, '', null, 2);
    const second = await listLibrary(world.db, world.brandId, '', first[1]!, 2);
    expect([...first, ...second].map(({ fileName }) => fileName)).toEqual(['c.jpg', 'b.jpg', 'a.jpg']);
  });

  it('gives a file to a post, and keeps it while the post uses it', async () => {
    valueOf(await keepInLibrary(world.work, world.brandId, file('a', 'dome.jpg')));
    const { id } = await world.makePost('glassrow');
    const { pictureId: picture } = valueOf(await attachFromLibrary(world.work, id, world.brandId, 'a'.repeat(64)));
    expect(codeOf(await dropFromLibrary(world.work, world.brandId, 'a'.repeat(64)))).toBe('inUse');
    valueOf(await removePicture(world.work, id, picture));
    valueOf(await dropFromLibrary(world.work, world.brandId, 'a'.repeat(64)));
    expect(codeOf(await dropFromLibrary(world.work, world.brandId, 'a'.repeat(64)))).toBe('notFound');
    expect(codeOf(await attachFromLibrary(world.work, id, world.brandId, 'a'.repeat(64)))).toBe('notFound');
  });
});

describe('clearing files', () => {
  let folder: string;
  beforeEach(async () => void (folder = await mkdtemp(join(tmpdir(), 'bimlo-clear-'))));
  afterEach(() => rm(folder, { recursive: true }));

  const OLD = new Date('2026-11-20T00:00:00Z');
  async function put(letter: string, at: Date): Promise<void> {
    const sha256 = letter.repeat(64);
    await mkdir(join(folder, sha256.slice(0, 2)), { recursive: true });
    for (const size of ['original', 'thumb'] as const) {
      await writeFile(picturePath(folder, sha256, size), letter);
      await utimes(picturePath(folder, sha256, size), at, at);
    }
  }
  const left = async () =>
    (await readdir(folder, { recursive: true }))
      .filter((name) => /\/[0-9a-f]{64}$/.test(name))
      .map((name) => name[0])
      .sort();

  it('leaves a file alone that is taken in again while it is looked at', async () => {
    await put('a', OLD);
    const path = picturePath(folder, 'a'.repeat(64), 'original');
    const db = {
      ...world.db,
      // Between the question what is known and the clearing, somebody takes the same file in.
      rows: async <Row>(sql: string, parameters?: Parameters<typeof world.db.rows>[1]) => {
        const found = await world.db.rows<Row>(sql, parameters);
        await utimes(path, new Date(START), new Date(START));
        return found;
      },
    };
    expect(await clearLooseFiles(db, folder, START, new Set())).toBe(0);
    expect(await left()).toEqual(['a']);
  });

  it('takes what no row points to, a day after it came, and nothing else', async () => {
    const { id } = await world.makePost('glassrow');
    valueOf(await keepInLibrary(world.work, world.brandId, file('a', 'library.jpg')));
    const { pictureId: picture } = valueOf(await attachPicture(world.work, id, file('b', 'leaving.jpg'), 'A dome'));
    valueOf(await schedulePost(world.work, id, (await world.post(id)).version));
    valueOf(await removePicture(world.work, id, picture));
    valueOf(await dropFromLibrary(world.work, world.brandId, 'b'.repeat(64)));
    const asset = { kind: 'logo' as const, name: 'Dome', value: '', mime: 'image/png', bytes: 1, fileName: 'c.png' };
    await insertBrandAsset(world.db, { ...asset, id, brandId: world.brandId, sha256: 'c'.repeat(64) });
    for (const letter of ['a', 'b', 'c', 'd']) await put(letter, OLD);
    await put('e', new Date(START));
    await writeFile(join(folder, 'incoming-old'), 'x');
    await utimes(join(folder, 'incoming-old'), OLD, OLD);
    await writeFile(join(folder, 'incoming-new'), 'x');
    await utimes(join(folder, 'incoming-new'), new Date(START), new Date(START));
    expect(await clearLooseFiles(world.db, folder, START, new Set())).toBe(1);
    expect(await left()).toEqual(['a', 'b', 'c', 'e']);
    expect((await readdir(folder)).filter((name) => name.startsWith('incoming'))).toEqual(['incoming-new']);
  });
});
