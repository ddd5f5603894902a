import { mkdtemp, readdir, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { PICTURE_LIMIT_BYTES, readPictureFile, refuseBySize, takePicture } from './pictureFiles';

let folder: string;
beforeEach(async () => void (folder = await mkdtemp(join(tmpdir(), 'bimlo-pictures-'))));
afterEach(() => rm(folder, { recursive: true }));

const canvas = (width: number, height: number) =>
  sharp({
    create: { width, height, channels: 3, background: '#0b6e69', noise: { type: 'gaussian', mean: 120, sigma: 40 } },
  });

describe('taking a picture in', () => {
  it.each(['jpeg', 'png', 'webp', 'gif'] as const)(
    'keeps a %s under its content hash, with a thumbnail',
    async (type) => {
      const bytes = await canvas(300, 200).toFormat(type).toBuffer();
      const taken = await takePicture(folder, bytes, 'dome.bin');
      expect(taken).toMatchObject({
        ok: true,
        value: { mime: `image/${type}`, width: 300, height: 200, bytes: bytes.length, fileName: 'dome.bin' },
      });
      if (!taken.ok) return;
      expect(await readPictureFile(folder, taken.value.sha256)).toEqual(bytes);
      expect(await sharp(await readPictureFile(folder, taken.value.sha256, 'thumb')).metadata()).toMatchObject({
        format: 'webp',
        width: 192,
        height: 192,
      });
    },
  );

  it('turns width and height as the file asks', async () => {
    const turned = await canvas(300, 200).jpeg().withMetadata({ orientation: 6 }).toBuffer();
    expect(await takePicture(folder, turned, 'a.jpg')).toMatchObject({ value: { width: 200, height: 300 } });
  });

  it('keeps the same content once', async () => {
    const bytes = await canvas(20, 20).png().toBuffer();
    await takePicture(folder, bytes, 'a.png');
    await takePicture(folder, bytes, 'b.png');
    expect((await readdir(folder, { recursive: true })).filter((name) => !name.includes('thumb'))).toHaveLength(2);
  });

  it.each([
    ['a truncated JPEG', async () => (await canvas(400, 400).jpeg().toBuffer()).subarray(0, 3000), 'brokenPicture'],
    ['a truncated PNG', async () => (await canvas(400, 400).png().toBuffer()).subarray(0, 30000), 'brokenPicture'],
    ['an HTML file named .png', async () => Buffer.from('<!doctype html><script>alert(1)</script>'), 'notAPicture'],
    ['an SVG', async () => Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"/>'), 'notAPicture'],
    ['an empty file', async () => Buffer.alloc(0), 'emptyFile'],
    ['a file over the limit', async () => Buffer.alloc(PICTURE_LIMIT_BYTES + 1), 'tooBig'],
  ])('refuses %s and leaves nothing behind', async (_name, make, code) => {
    expect(await takePicture(folder, await make(), 'dome.png')).toMatchObject({
      ok: false,
      refusal: { code, field: 'pictures' },
    });
    expect(await readdir(folder)).toEqual([]);
  });

  it('refuses 200 MB before reading them', () => {
    expect(refuseBySize(200_000_000, 'big.jpg')).toMatchObject({ refusal: { code: 'tooBig' } });
    expect(refuseBySize(1000, 'small.jpg')).toBeNull();
  });

  it('keeps a file name harmless', async () =>
    expect(await takePicture(folder, await canvas(9, 9).png().toBuffer(), '../../\u0000etc/passwd')).toMatchObject({
      value: { fileName: '....etcpasswd' },
    }));
});
