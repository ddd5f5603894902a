import { readFile, rm } from 'node:fs/promises';
import sharp from 'sharp';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { PostSheet } from '@/core/posts/sheet';
import type { Post } from '@/data/posts/posts';
import { picturePath } from '@/data/media/mediaPaths';
import { schedulePost } from '@/usecases/delivery/schedule';
import { valueOf } from '@/usecases/testWorld';
import { DELETE as dropAsset, POST as keepAsset } from './assets/route';
import { DELETE as dropFile, GET as listFiles, POST as takeFile } from './library/route';
import { GET as readFileOf } from './media/[sha]/route';
import { DELETE as remove, GET as leaving, PATCH as describePicture } from './posts/[id]/media/[picture]/route';
import { GET as saveLeaving } from './posts/[id]/leaving/[place]/route';
import { POST as attach } from './posts/[id]/media/route';
import { ask, makeApp, refusalIn, send, type TestApp } from './testApp';

let app: TestApp;
let post: Post;
beforeEach(async () => {
  app = await makeApp();
  post = await app.makePost('glassrow');
});
afterEach(() => app.close());

const NOBODY = '00000000-0000-4000-8000-000000000000';
const picture = (width = 1600, height = 1200) =>
  sharp({ create: { width, height, channels: 3, background: '#134e5e' } })
    .jpeg()
    .toBuffer();
const asBody = (bytes: Uint8Array): BodyInit => new Blob([new Uint8Array(bytes)]);

interface Changed {
  sheet: PostSheet;
  refusal?: { code: string; field?: string };
}
const upload = async (bytes: Uint8Array, name = 'dome.jpg', headers: Record<string, string> = {}) => {
  const response = await send(attach, {
    params: { id: post.id },
    body: asBody(bytes),
    headers: { 'x-file-name': encodeURIComponent(name), ...headers },
  });
  return { status: response.status, body: (await response.json()) as Changed };
};
const attached = async (bytes?: Uint8Array) => (await upload(bytes ?? (await picture()))).body.sheet.pictures[0]!;

describe('a picture of a post', () => {
  it('is taken in under its content, with the name it had', async () => {
    const one = await attached();
    expect(one).toMatchObject({ fileName: 'dome.jpg', width: 1600, height: 1200, mime: 'image/jpeg', alt: '' });
  });

  it.each([
    ['an HTML file named .png', async () => Buffer.from('<!doctype html><p>'), 'notAPicture'],
    ['a cut off picture', async () => (await picture()).subarray(0, 400), 'brokenPicture'],
    ['nothing', async () => Buffer.alloc(0), 'emptyFile'],
  ])('that is %s is refused, and nothing is kept', async (_name, bytes, code) => {
    const answer = await upload(await bytes(), 'x.png');
    expect([answer.status, answer.body.refusal!.code]).toEqual([422, code]);
    expect(await app.db.rows('select 1 from media')).toEqual([]);
  });

  it('is refused by its announced size before a byte is read', async () => {
    const { status, body } = await upload(await picture(), 'huge.mp4', { 'content-length': '3000000000' });
    expect([status, body.refusal!.code]).toEqual([413, 'tooBig']);
  });

  it('is taken from our own pages only', async () => {
    const answer = await upload(await picture(), 'a.jpg', { origin: 'https://elsewhere.example' });
    expect([answer.status, answer.body.refusal!.code]).toEqual([403, 'foreign']);
    expect((await upload(await picture(), 'a.jpg', { host: 'elsewhere.example' })).status).toBe(403);
    const fromLibrary = await send(attach, {
      params: { id: post.id },
      query: `file=${'a'.repeat(64)}`,
      body: '',
      headers: { origin: 'https://elsewhere.example' },
    });
    expect(fromLibrary.status).toBe(403);
  });

  it('is described and cropped, and leaves as it was cropped', async () => {
    const { id } = await attached();
    const params = { id: post.id, picture: id };
    const described = await ask<Changed>(describePicture, { params, body: { alt: 'The dome at dusk' } });
    expect(described.body.sheet.pictures[0]!.alt).toBe('The dome at dusk');
    const recipe = { crop: { x: 0.25, y: 0, width: 0.5, height: 1 }, toMime: 'image/png', toBytes: null };
    await ask(describePicture, { params, body: { recipe } });
    const response = await send(leaving, { params });
    const out = Buffer.from(await response.arrayBuffer());
    expect(response.headers.get('content-security-policy')).toContain('sandbox');
    expect(await sharp(out).metadata()).toMatchObject({ width: 800, height: 1200, format: 'png' });
  });

  it.each([
    ['a crop outside the picture', { crop: { x: 0.8, y: 0, width: 0.5, height: 1 }, toMime: null, toBytes: null }],
    ['a crop of nothing', { crop: { x: 0, y: 0, width: 0, height: 1 }, toMime: null, toBytes: null }],
    ['a type that is no picture', { crop: null, toMime: 'text/html', toBytes: null }],
    ['a crop that is no number', { crop: { x: 'left', y: 0, width: 1, height: 1 }, toMime: null, toBytes: null }],
  ])('is not made into %s', async (_name, recipe) => {
    const { id } = await attached();
    const answer = await ask<Changed>(describePicture, { params: { id: post.id, picture: id }, body: { recipe } });
    expect([answer.status, answer.body.refusal !== undefined]).toEqual([422, true]);
  });

  it('is taken away, and then is not there', async () => {
    const { id } = await attached();
    const params = { id: post.id, picture: id };
    expect((await ask<Changed>(remove, { params })).body.sheet.pictures).toEqual([]);
    expect((await send(leaving, { params })).status).toBe(404);
    expect((await ask(describePicture, { params, body: { alt: 'x' } })).status).toBe(404);
    expect((await ask(remove, { params: { id: post.id, picture: 'x' } })).status).toBe(404);
  });
});

it('what leaves by hand is saved as it was copied when it was scheduled, under the name of what it became', async () => {
  post = await app.makePost('homestoop');
  const { id } = await attached();
  const params = { id: post.id, picture: id };
  const cropped = { x: 0.25, y: 0, width: 0.5, height: 1 };
  await ask(describePicture, { params, body: { recipe: { crop: cropped, toMime: 'image/png', toBytes: null } } });
  await ask(describePicture, { params, body: { alt: 'The dome at dusk' } });
  valueOf(await schedulePost(app.work, post.id, (await app.post(post.id)).version));
  await ask(describePicture, { params, body: { recipe: { crop: null, toMime: null, toBytes: null } } });
  const save = (place: string) => send(saveLeaving, { params: { id: post.id, place } });
  const response = await save('0');
  expect(response.headers.get('content-disposition')).toBe("attachment; filename*=UTF-8''dome.png");
  expect(await sharp(Buffer.from(await response.arrayBuffer())).metadata()).toMatchObject({
    width: 800,
    format: 'png',
  });
  expect([(await save('1')).status, (await save('-1')).status]).toEqual([404, 404]);
});

describe('a stored file', () => {
  const read = (sha: string, query = '', headers: Record<string, string> = {}) =>
    send(readFileOf, { params: { sha }, query, headers });

  it('is read whole, as a thumbnail, and saved under its name', async () => {
    const bytes = await picture();
    const { sha256 } = await attached(bytes);
    const whole = await read(sha256);
    expect(Buffer.from(await whole.arrayBuffer()).equals(bytes)).toBe(true);
    expect(whole.headers.get('cache-control')).toContain('immutable');
    const thumb = await read(sha256, 'size=thumb');
    expect(thumb.headers.get('content-type')).toBe('image/webp');
    const saved = await read(sha256, 'save');
    expect(saved.headers.get('content-disposition')).toBe("attachment; filename*=UTF-8''dome.jpg");
  });

  it('of a drawing can run nothing', async () => {
    const svg =
      '<svg xmlns="http://www.w3.org/2000/svg" width="900" height="900"><script>alert(1)</script><rect width="900" height="900" fill="red"/></svg>';
    const { sha256, mime } = await attached(Buffer.from(svg));
    expect(mime).toBe('image/svg+xml');
    const response = await read(sha256);
    expect(response.headers.get('content-security-policy')).toBe(
      "default-src 'none'; style-src 'unsafe-inline'; sandbox",
    );
    expect(response.headers.get('x-content-type-options')).toBe('nosniff');
  });

  it('of a video comes in the stretches asked for', async () => {
    const video = await readFile('demo/videos/dome-tall.mp4');
    const clip = await app.makePost('pithline');
    const response = await send(attach, {
      params: { id: clip.id },
      body: asBody(video),
      headers: { 'x-file-name': 'dome.mp4' },
    });
    const { sha256, durationMs } = ((await response.json()) as Changed).sheet.pictures[0]!;
    expect(durationMs).toBeGreaterThan(1_000);
    const whole = await read(sha256);
    expect([whole.status, whole.headers.get('content-length')]).toEqual([200, String(video.length)]);
    const stretch = async (range: string) => {
      const part = await read(sha256, '', { range });
      return [part.status, part.headers.get('content-range'), Buffer.from(await part.arrayBuffer()).length];
    };
    expect(await stretch('bytes=0-99')).toEqual([206, `bytes 0-99/${video.length}`, 100]);
    expect(await stretch('bytes=100-')).toEqual([
      206,
      `bytes 100-${video.length - 1}/${video.length}`,
      video.length - 100,
    ]);
    expect(await stretch('bytes=-50')).toEqual([
      206,
      `bytes ${video.length - 50}-${video.length - 1}/${video.length}`,
      50,
    ]);
    expect((await stretch(`bytes=${video.length}-`))[0]).toBe(416);
  });

  it('whose file is lost is not there, nor is what it would leave as', async () => {
    const { id, sha256 } = await attached();
    await rm(picturePath(app.media, sha256, 'original'));
    await rm(picturePath(app.media, sha256, 'thumb'));
    for (const query of ['', 'size=thumb', 'save'])
      expect((await send(readFileOf, { params: { sha: sha256 }, query })).status).toBe(404);
    const answer = await ask(leaving, { params: { id: post.id, picture: id } });
    expect([answer.status, answer.body.refusal?.code]).toEqual([404, 'lostFile']);
  });

  it('that nobody took in is not there', async () => {
    expect((await read('a'.repeat(64))).status).toBe(404);
    expect((await read('../../etc/passwd')).status).toBe(404);
  });
});

describe('the library of a brand', () => {
  const take = async (bytes: Uint8Array, name: string, brand = app.brandId) => {
    const response = await send(takeFile, {
      query: `brand=${brand}`,
      body: asBody(bytes),
      headers: { 'x-file-name': name },
    });
    return { status: response.status, body: (await response.json()) as { isNew?: boolean; fileName?: string } };
  };
  const list = async (query = '') =>
    (
      await ask<{ fileName: string; sha256: string; addedAt: string }[]>(listFiles, {
        query: `brand=${app.brandId}${query}`,
      })
    ).body;

  it('knows a file again by its content', async () => {
    const bytes = await picture(300, 300);
    expect((await take(bytes, 'one.jpg')).body).toEqual({ isNew: true, fileName: 'one.jpg' });
    expect((await take(bytes, 'two.jpg')).body).toEqual({ isNew: false, fileName: 'two.jpg' });
    expect((await list()).map(({ fileName }) => fileName)).toEqual(['one.jpg']);
    expect(await list('&words=two')).toEqual([]);
  });

  it('gives a file to a post, by its content hash', async () => {
    await take(await picture(), 'one.jpg');
    const { sha256 } = (await list())[0]!;
    const answer = await send(attach, { params: { id: post.id }, query: `file=${sha256}`, body: '' });
    expect(((await answer.json()) as Changed).sheet.pictures[0]).toMatchObject({ sha256, fileName: 'one.jpg' });
    const missing = await send(attach, { params: { id: NOBODY }, query: `file=${sha256}`, body: '' });
    expect(missing.status).toBe(404);
  });

  it('lets a file go, and only one it has', async () => {
    await take(await picture(), 'one.jpg');
    const { sha256 } = (await list())[0]!;
    expect((await ask(dropFile, { query: `brand=${app.brandId}&file=${sha256}` })).status).toBe(200);
    expect(await list()).toEqual([]);
    expect((await ask(dropFile, { query: `brand=${app.brandId}&file=dome` })).status).toBe(404);
    expect((await ask(dropFile, { query: 'brand=moor' })).status).toBe(404);
  });

  it('is of a brand, and goes page by page', async () => {
    expect((await take(await picture(), 'one.jpg', 'moor')).status).toBe(404);
    expect((await take(Buffer.from('<p>'), 'one.jpg')).status).toBe(422);
    expect((await ask(listFiles, { query: 'brand=moor' })).status).toBe(404);
    expect(refusalIn(await ask(listFiles, { query: `brand=${app.brandId}&before=noon` }))).toEqual([
      'badPage',
      undefined,
    ]);
    await take(await picture(), 'one.jpg');
    const { addedAt, sha256 } = (await list())[0]!;
    expect(await list(`&before=${addedAt}&beforeHash=${sha256}`)).toEqual([]);
  });
});

describe('a brand’s sheet', () => {
  interface Asset {
    id: string;
    kind: string;
    name: string;
    value: string;
  }
  const keep = async (query: string, file?: Uint8Array) => {
    const response = await send(keepAsset, {
      query: `brand=${app.brandId}&${query}`,
      body: file ? asBody(file) : '',
      headers: file ? { 'x-file-name': 'logo.png' } : {},
    });
    return { status: response.status, body: (await response.json()) as Asset[] & { refusal?: { code: string } } };
  };

  it('holds colours, fonts and logos, and lets them go', async () => {
    await keep('kind=colour&name=Night&value=%2316191D');
    const { body } = await keep('kind=logo&name=Dome', await picture(200, 200));
    expect(body.map(({ kind, name }) => [kind, name]).sort()).toEqual([
      ['colour', 'Night'],
      ['logo', 'Dome'],
    ]);
    const left = await ask<Asset[]>(dropAsset, { body: { brandId: app.brandId, id: body[0]!.id } });
    expect(left.body).toHaveLength(1);
  });

  it('refuses what it has no place for', async () => {
    expect((await keep('kind=song&name=x&value=y')).body.refusal!.code).toBe('badKind');
    expect((await keep('kind=colour&name=Night&value=dark')).status).toBe(422);
    expect((await keep('kind=logo&name=Dome')).status).toBe(422);
    expect((await keep('kind=logo&name=Dome', Buffer.from('<p>'))).status).toBe(422);
  });
});
