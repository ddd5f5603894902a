import { rm } from 'node:fs/promises';
import { strFromU8, unzipSync } from 'fflate';
import sharp from 'sharp';
import { afterEach, beforeEach, expect, it } from 'vitest';
import { insertPictures } from '@/data/media/media';
import { picturePath } from '@/data/media/mediaPaths';
import { takeMedia } from '@/data/media/mediaFiles';
import type { Post } from '@/data/posts/posts';
import { valueOf } from '@/usecases/testWorld';
import { makeApp, send, type TestApp } from '../testApp';
import { GET } from './route';

let app: TestApp;
let post: Post;
let sha256: string;
beforeEach(async () => {
  app = await makeApp();
  post = await app.makePost('glassrow', { date: '2026-11-26', time: '14:30' });
  const bytes = await sharp({ create: { width: 60, height: 40, channels: 3, background: '#224466' } })
    .png()
    .toBuffer();
  const file = valueOf(await takeMedia(app.media, bytes, 'ring.png'));
  sha256 = file.sha256;
  const at = { postId: post.id, brandId: app.brandId, position: 0, alt: 'A ring', addedAt: app.work.clock.now() };
  const crop = { x: 0, y: 0, width: 0.5, height: 1 };
  await insertPictures(app.db, [{ ...file, ...at, id: app.work.ids(), crop, toMime: null, toBytes: null }]);
});
afterEach(() => app.close());

const take = async (query: string) => {
  const response = await send(GET, { query });
  const files: Record<string, Uint8Array> =
    response.status === 200 ? unzipSync(new Uint8Array(await response.arrayBuffer())) : {};
  return { status: response.status, files, name: response.headers.get('content-disposition') };
};
const names = (files: Record<string, Uint8Array>) =>
  Object.keys(files).map((path) => path.split('/').slice(1).join('/'));

it('a post comes with its words, its picture cropped and as it was, and a list', async () => {
  const { files, name } = await take(`post=${post.id}`);
  const folder = `2026-11-26 14-30 ${post.title}`;
  expect(names(files)).toEqual([
    `${folder}/caption.txt`,
    `${folder}/alt texts.txt`,
    `${folder}/1 ring.png`,
    `${folder}/originals/1 ring.png`,
    '',
  ]);
  expect(strFromU8(files[`glassrow/${folder}/caption.txt`]!)).toBe('The dome is open from eight.');
  const [cropped, original] = Object.entries(files).filter(([path]) => path.endsWith('.png'));
  expect(await sharp(cropped![1]).metadata()).toMatchObject({ width: 30, height: 40 });
  expect(await sharp(original![1]).metadata()).toMatchObject({ width: 60, height: 40 });
  expect(strFromU8(files['posts.csv']!)).toContain('2026-11-26,14:30');
  expect(name).toContain(encodeURIComponent(`${post.title} 2026-11-23.zip`));
});

it('a piece and some days of a brand come with all their posts, each in a folder of its own', async () => {
  await app.makePost('pithline', { date: '2026-11-27', time: '09:00' });
  const { files } = await take('brand=moor&from=2026-11-23&to=2026-11-29');
  expect(Object.keys(files).filter((path) => path.endsWith('caption.txt'))).toHaveLength(2);
  expect(Object.keys((await take(`piece=${post.pieceId}`)).files)).toHaveLength(5);
  expect(Object.keys((await take('brand=moor&from=2026-12-07&to=2026-12-13')).files)).toEqual(['posts.csv']);
  expect((await take('brand=moor&from=2026-01-01&to=2026-12-31')).status).toBe(422);
});

it('a file that is lost is named in it, and the rest is there', async () => {
  await rm(picturePath(app.media, sha256, 'original'));
  const { files } = await take(`post=${post.id}`);
  expect(Object.keys(files).some((path) => path.endsWith('.png'))).toBe(false);
  expect(strFromU8(files['not taken along.txt']!)).toContain('1 ring.png');
});

it('whole plans are for who may export; what is nowhere is not found', async () => {
  app.actAs(app.otherWork.actorId);
  expect((await take(`post=${post.id}`)).status).toBe(200);
  expect((await take(`piece=${post.pieceId}`)).status).toBe(403);
  expect((await take('brand=moor&from=2026-11-23&to=2026-11-29')).status).toBe(403);
  expect((await take('post=me')).status).toBe(404);
  expect((await take('brand=moor')).status).toBe(404);
});
