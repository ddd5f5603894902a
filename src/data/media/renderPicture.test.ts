import { createHash } from 'node:crypto';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import sharp from 'sharp';
import { AS_IT_IS } from '@/core/media/fit';
import { takeMedia } from './mediaFiles';
import { render } from '../native/render';
import { renderPicture } from './renderPicture';

let folder: string;
beforeEach(async () => void (folder = await mkdtemp(join(tmpdir(), 'bimlo-render-'))));
afterEach(() => rm(folder, { recursive: true }));

/** A picture on its side (orientation 6), red where its upper left is once it stands, with the place it was taken at. */
async function sideways(): Promise<Buffer> {
  const red = await sharp({ create: { width: 60, height: 60, channels: 3, background: '#ff0000' } })
    .png()
    .toBuffer();
  return sharp({ create: { width: 300, height: 200, channels: 3, background: '#0000ff' } })
    .composite([{ input: red, left: 0, top: 140 }])
    .withExif({ IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '57/1 38/1 0/1' } })
    .withMetadata({ orientation: 6 })
    .jpeg({ quality: 100, chromaSubsampling: '4:4:4' })
    .toBuffer();
}

const pixel = async (bytes: Buffer, left: number, top: number) => [
  ...(await sharp(bytes).extract({ left, top, width: 1, height: 1 }).raw().toBuffer()),
];

describe('a picture on its way out', () => {
  it('stands upright and says nothing of where it was taken, while the original keeps it', async () => {
    const original = await sideways();
    expect((await sharp(original).metadata()).exif).toBeDefined();
    const { bytes: out } = await render(original, 'image/jpeg', AS_IT_IS);
    const { width, height, exif, orientation } = await sharp(out).metadata();
    expect([width, height, exif, orientation]).toEqual([200, 300, undefined, undefined]);
    const [red, , blue] = await pixel(out, 20, 20);
    expect(red).toBeGreaterThan(200);
    expect(blue).toBeLessThan(60);
  });
  it('is cropped as it stands upright', async () => {
    const { bytes: out } = await render(await sideways(), 'image/jpeg', {
      ...AS_IT_IS,
      crop: { x: 0, y: 0, width: 0.25, height: 0.1 },
    });
    const { width, height } = await sharp(out).metadata();
    expect([width, height]).toEqual([50, 30]);
    expect((await pixel(out, 25, 15))[0]).toBeGreaterThan(200);
  });
  it('is converted, what shows through it white', async () => {
    const clear = await sharp({
      create: { width: 10, height: 10, channels: 4, background: { r: 0, g: 0, b: 0, alpha: 0 } },
    })
      .png()
      .toBuffer();
    const { bytes: out } = await render(clear, 'image/png', { ...AS_IT_IS, toMime: 'image/jpeg' });
    expect((await sharp(out).metadata()).format).toBe('jpeg');
    expect((await pixel(out, 5, 5))[0]).toBeGreaterThan(250);
  });
  it('keeps the frames of an animation, cropped and not', async () => {
    const frame = (background: string) =>
      sharp({ create: { width: 80, height: 60, channels: 3, background } })
        .png()
        .toBuffer();
    const frames = await Promise.all(['#ff0000', '#00ff00', '#0000ff'].map(frame));
    const animation = await sharp(frames, { join: { animated: true } })
      .gif()
      .toBuffer();
    const crop = { x: 0.25, y: 0, width: 0.5, height: 1 };
    for (const [recipe, width] of [
      [AS_IT_IS, 80],
      [{ ...AS_IT_IS, crop }, 40],
    ] as const) {
      const { pages, pageHeight, ...out } = await sharp((await render(animation, 'image/gif', recipe)).bytes, {
        animated: true,
      }).metadata();
      expect([pages, pageHeight, out.width]).toEqual([3, 60, width]);
    }
  });
  it('is scaled down until it has no more bytes than asked for', async () => {
    const noise = Buffer.from(Array.from({ length: 600 * 400 * 3 }, (_, index) => (index * 7919) % 251));
    const large = await sharp(noise, { raw: { width: 600, height: 400, channels: 3 } })
      .png()
      .toBuffer();
    const { bytes: out } = await render(large, 'image/png', { ...AS_IT_IS, toBytes: 50_000 });
    expect(out.length).toBeLessThanOrEqual(50_000);
    const { width, height } = await sharp(out).metadata();
    expect(width / height).toBeCloseTo(1.5, 1);
    await expect(render(large, 'image/png', { ...AS_IT_IS, toBytes: 10 })).rejects.toThrow(/10 bytes/);
  });
  it('keeps the frames of an animated WebP, also when it becomes a GIF', async () => {
    const frames = await Promise.all(
      ['#ff0000', '#00ff00'].map((background) =>
        sharp({ create: { width: 40, height: 30, channels: 3, background } })
          .png()
          .toBuffer(),
      ),
    );
    const moving = await sharp(frames, { join: { animated: true } })
      .webp()
      .toBuffer();
    for (const toMime of [null, 'image/gif']) {
      const out = await render(moving, 'image/webp', { ...AS_IT_IS, toMime });
      expect([out.width, out.height, (await sharp(out.bytes).metadata()).pages]).toEqual([40, 30, 2]);
    }
  });
  it('of a drawing is what it was drawn to, and said to be that', async () => {
    const drawing = Buffer.from(
      '<svg xmlns="http://www.w3.org/2000/svg" width="40" height="30"><rect width="9" height="9"/></svg>',
    );
    const stored = await takeMedia(folder, drawing, 'dome.svg');
    if (!stored.ok) throw new Error(stored.refusal.message);
    const out = await renderPicture(folder, { ...stored.value, alt: '', recipe: AS_IT_IS });
    expect([out.picture.mime, (await sharp(out.bytes).metadata()).format]).toEqual(['image/png', 'png']);
  });
  it('that was taken in can leave: data about it that is broken is no reason', async () => {
    const whole = await sharp({ create: { width: 60, height: 40, channels: 3, background: '#336699' } })
      .withExif({ IFD0: { Artist: 'Ines' } })
      .jpeg()
      .toBuffer();
    const at = whole.indexOf('Exif');
    const broken = Buffer.from(whole);
    broken.fill(0xff, at + 8, at + 20);
    const taken = await takeMedia(folder, broken, 'broken.jpg');
    if (taken.ok)
      expect((await renderPicture(folder, { ...taken.value, alt: '', recipe: AS_IT_IS })).bytes.length).toBeGreaterThan(
        0,
      );
    else expect(taken.refusal.code).toBe('brokenPicture');
  });
  it('is known by the content of what leaves, the same each time', async () => {
    const stored = await takeMedia(folder, await sideways(), 'moor.jpg');
    if (!stored.ok) throw new Error(stored.refusal.message);
    const { sha256, mime, fileName, bytes } = stored.value;
    const parcel = { sha256, mime, fileName, bytes, alt: 'The moor', recipe: { ...AS_IT_IS, toMime: 'image/webp' } };
    const out = await renderPicture(folder, parcel);
    expect(out.picture).toEqual({
      sha256: createHash('sha256').update(out.bytes).digest('hex'),
      mime: 'image/webp',
      width: stored.value.width,
      height: stored.value.height,
      fileName,
      bytes: out.bytes.length,
      alt: 'The moor',
    });
    expect((await renderPicture(folder, parcel)).picture.sha256).toBe(out.picture.sha256);
  });
});
