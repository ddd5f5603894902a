import { readFileSync } from 'node:fs';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { CARD_LAYOUTS, type Card } from '@/core/cards/card';
import { closePool } from '@/data/pool/pool';
import { insertBrandAsset } from '@/data/brands/brandAssets';
import { listPictures } from '@/data/media/media';
import { takeMedia } from '@/data/media/mediaFiles';
import { readPictureFile } from '@/data/media/mediaPaths';
import { keepInLibrary } from '@/usecases/media/library';
import { valueOf } from '@/usecases/testWorld';
import { followCards } from '@/usecases/cards/cards';
import { ask, makeApp, refusalIn, send, type TestApp } from '../testApp';
import { POST as putAsset } from '../assets/route';
import { GET as colours, POST as draw } from '../cards/route';
import { POST as attach } from './[id]/cards/route';
import { PATCH as edit } from './[id]/route';

let app: TestApp;
beforeAll(async () => void (app = await makeApp()));
afterAll(async () => {
  await closePool();
  await app.close();
});

const CARD: Card = {
  ...{ layout: 'ruled', kind: 'point', text: 'The dome is open from eight.', by: 'Moor', width: 1280, height: 800 },
  ...{ ground: '#141C33', ink: '#FFFFFF', accent: '#E0A526', picture: null, follows: null },
};
const drawn = async (part: Partial<Card>) => {
  const response = await send(draw, {
    body: JSON.stringify({ brandId: app.brandId, card: { ...CARD, ...part } }),
    headers: { 'content-type': 'application/json' },
  });
  return { response, bytes: new Uint8Array(await response.arrayBuffer()) };
};
const attaching = (id: string, part: Partial<Card> = {}, replaces: string | null = null) =>
  ask<{ sheet: { pictures: { id: string }[] } }>(attach, {
    params: { id },
    body: { card: { ...CARD, ...part }, replaces },
  });
/** How many pixels of a picture are lighter than half. */
const lightShare = async (bytes: Uint8Array) => {
  const { data } = await sharp(bytes).greyscale().raw().toBuffer({ resolveWithObject: true });
  return data.filter((value) => value > 128).length / data.length;
};

describe('a card', () => {
  it.each(CARD_LAYOUTS)('is drawn %s as a PNG of its size, with its words on it', async (layout) => {
    const { response, bytes } = await drawn({ layout });
    expect(response.headers.get('content-type')).toBe('image/png');
    expect(await sharp(bytes).metadata()).toMatchObject({ format: 'png', width: 1280, height: 800 });
    const light = await lightShare(bytes);
    expect(light).toBeGreaterThan(0.02);
    const other = await lightShare((await drawn({ layout, text: 'Oh.', by: '' })).bytes);
    expect(Math.abs(light - other)).toBeGreaterThan(0.005);
  });

  it('is drawn in letters of every script, none of them an empty box', async () => {
    const boxes = (await drawn({ text: '\u{10FFFD}'.repeat(6) })).bytes;
    for (const text of ['حلقات زحل', 'הטבעות', '土星の環', '木星의 고리', 'शनि के', 'Кольца', 'Δίσκος', 'วงแหวน']) {
      const { response, bytes } = await drawn({ text });
      expect(response.status).toBe(200);
      expect(Buffer.compare(bytes, boxes)).not.toBe(0);
      const reversed = (await drawn({ text: [...text].reverse().join('') })).bytes;
      expect(Buffer.compare(bytes, reversed)).not.toBe(0);
    }
  });

  it('over a picture is covered until words stand out from all of it', async () => {
    const white = await sharp({ create: { width: 600, height: 600, channels: 3, background: '#ffffff' } })
      .png()
      .toBuffer();
    const file = valueOf(await takeMedia(app.media, white, 'white.png'));
    valueOf(await keepInLibrary(app.work, app.brandId, file));
    const { bytes } = await drawn({ picture: file.sha256, text: 'O', by: '' });
    const { data } = await sharp(bytes)
      .extract({ left: 1100, top: 400, width: 1, height: 1 })
      .raw()
      .toBuffer({ resolveWithObject: true });
    // White words on it need a ground of at most 18% of the light.
    const [r, g, b] = [...data].map((value) => (value / 255) ** 2.2);
    expect(0.2126 * r! + 0.7152 * g! + 0.0722 * b!).toBeLessThan(0.19);
    const missing = await drawn({ picture: 'a'.repeat(64) });
    expect(missing.response.status).toBe(422);
  });

  it('becomes a picture of the post with its alt text, and its place is taken by the next', async () => {
    const post = await app.makePost('glassrow');
    const [first] = (await attaching(post.id)).body.sheet.pictures;
    const [kept] = await listPictures(app.db, post.id);
    expect(kept).toMatchObject({ alt: 'The dome is open from eight. (Moor)', mime: 'image/png', card: CARD });
    expect((await readPictureFile(app.media, kept!.sha256)).length).toBe(kept!.bytes);
    await attaching(post.id, { text: 'Another.', follows: 'firstLine' }, first!.id);
    const now = await listPictures(app.db, post.id);
    expect(now.map(({ alt }) => alt)).toEqual(['Another. (Moor)']);
    expect(refusalIn((await attaching(post.id, {}, first!.id)) as never)?.[0]).toBe('notFound');
  });

  it('changes with the words it follows, keeps what was written of it, and stays once scheduled', async () => {
    const post = await app.makePost('glassrow');
    await attaching(post.id, { text: 'The dome is open from eight.', follows: 'firstLine' });
    const say = async (caption: string) => {
      const { version } = await app.post(post.id);
      return ask<{ sheet: { pictures: { card: Card; alt: string }[] } }>(edit, {
        params: { id: post.id },
        body: { version, caption },
      });
    };
    const first = (await say('Clouds tonight.\nAnd more.')).body.sheet.pictures[0]!;
    expect(first).toMatchObject({ card: { text: 'Clouds tonight.' }, alt: 'Clouds tonight. (Moor)' });
    await app.db.run(`update media set alt = 'A dark plate' where post_id = $1`, [post.id]);
    expect((await say('Clear again.')).body.sheet.pictures[0]).toMatchObject({
      card: { text: 'Clear again.' },
      alt: 'A dark plate',
    });
    await app.db.run(`update posts set stage = 'scheduled', caption = 'Too late.' where id = $1`, [post.id]);
    expect(await followCards({ ...app.work, folder: app.media }, post.id)).toBe(0);
  });

  it('is refused with the reason: too long, too pale, of another brand', async () => {
    const post = await app.makePost('glassrow');
    expect(refusalIn((await attaching(post.id, { text: 'word '.repeat(79), height: 200 })) as never)).toEqual([
      'tooLong',
      'text',
    ]);
    expect(refusalIn((await attaching(post.id, { ink: '#151515' })) as never)).toEqual(['pale', 'ink']);
    expect(await listPictures(app.db, post.id)).toEqual([]);
    app.actAs(app.otherWork.actorId);
    await app.db.run('delete from brand_people where person_id = $1', [app.otherWork.actorId]);
    expect(refusalIn((await attaching(post.id)) as never)?.[0]).toBe('notYours');
    expect((await drawn({})).response.status).toBe(403);
    app.actAs(app.work.actorId);
  });

  it('comes in the colours of the brand', async () => {
    const asked = async () =>
      (await ask<{ ground: string }[]>(colours, { query: `brandId=${app.brandId}` })).body.map(({ ground }) => ground);
    expect(await asked()).toContain('#134E5E');
    await insertBrandAsset(app.db, {
      ...{ id: crypto.randomUUID(), brandId: app.brandId, kind: 'colour', name: 'Night', value: '#141C33' },
      ...{ sha256: null, mime: null, bytes: null, fileName: null },
    });
    expect(await asked()).toEqual(['#141C33', '#FAF7F0']);
  });

  it('is set in the fonts of the brand that have a file, and in ours for the letters they lack', async () => {
    const font = readFileSync(
      'node_modules/@fontsource-variable/inconsolata/files/inconsolata-latin-wght-normal.woff2',
    );
    const putting = async (bytes: Uint8Array) => {
      const response = await send(putAsset, {
        query: `brand=${app.brandId}&kind=font&name=Moor&value=headlines`,
        body: new Uint8Array(bytes),
        headers: { 'x-file-name': 'moor.woff2' },
      });
      return { status: response.status, body: (await response.json()) as never };
    };
    const [latin, arabic] = [(await drawn({})).bytes, (await drawn({ text: 'حلقات', by: '' })).bytes];
    expect(refusalIn(await putting(Buffer.from('no font')))).toEqual(['notAFont', 'file']);
    expect(refusalIn(await putting(font.subarray(0, 400)))).toEqual(['notAFont', 'file']);
    expect((await putting(font)).status).toBe(200);
    expect(Buffer.compare((await drawn({})).bytes, latin)).not.toBe(0);
    expect(Buffer.compare((await drawn({ text: 'حلقات', by: '' })).bytes, arabic)).toBe(0);
  });
});
