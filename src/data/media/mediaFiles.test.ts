import { mkdtemp, readdir, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { deflateSync } from 'node:zlib';
import sharp from 'sharp';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { PICTURE_LIMIT_BYTES, refuseBySize, takeMedia, VIDEO_LIMIT_BYTES } from './mediaFiles';
import { picturePath, readPictureFile } from './mediaPaths';

let folder: string;
beforeEach(async () => void (folder = await mkdtemp(join(tmpdir(), 'bimlo-pictures-'))));
afterEach(() => rm(folder, { recursive: true }));

const canvas = (width: number, height: number) =>
  sharp({
    create: { width, height, channels: 3, background: '#134e5e', noise: { type: 'gaussian', mean: 120, sigma: 40 } },
  });

describe('taking a picture in', () => {
  it.each(['jpeg', 'png', 'webp', 'gif'] as const)(
    'keeps a %s under its content hash, with a thumbnail',
    async (type) => {
      const bytes = await canvas(300, 200).toFormat(type).toBuffer();
      const taken = await takeMedia(folder, bytes, 'dome.bin');
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
    expect(await takeMedia(folder, turned, 'a.jpg')).toMatchObject({ value: { width: 200, height: 300 } });
  });

  it('keeps the same content once', async () => {
    const bytes = await canvas(20, 20).png().toBuffer();
    await takeMedia(folder, bytes, 'a.png');
    await takeMedia(folder, bytes, 'b.png');
    expect((await readdir(folder, { recursive: true })).filter((name) => !name.includes('thumb'))).toHaveLength(2);
  });

  it('puts the same content in the place of a file that was damaged', async () => {
    const bytes = await canvas(20, 20).png().toBuffer();
    const taken = await takeMedia(folder, bytes, 'a.png');
    if (!taken.ok) throw new Error(taken.refusal.message);
    const { sha256 } = taken.value;
    for (const size of ['original', 'thumb'] as const) await writeFile(picturePath(folder, sha256, size), 'torn');
    await takeMedia(folder, bytes, 'a.png');
    expect(await readPictureFile(folder, sha256)).toEqual(bytes);
    expect(await sharp(await readPictureFile(folder, sha256, 'thumb')).metadata()).toMatchObject({ width: 192 });
    expect((await readdir(folder)).filter((name) => name.startsWith('incoming'))).toEqual([]);
  });

  it.each([
    ['a truncated JPEG', async () => (await canvas(400, 400).jpeg().toBuffer()).subarray(0, 3000), 'brokenPicture'],
    ['a truncated PNG', async () => (await canvas(400, 400).png().toBuffer()).subarray(0, 30000), 'brokenPicture'],
    ['an HTML file named .png', async () => Buffer.from('<!doctype html><script>alert(1)</script>'), 'notAPicture'],
    [
      'an SVG that draws nothing',
      async () => Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"/>'),
      'brokenPicture',
    ],
    ['an XML file', async () => Buffer.from('<?xml version="1.0"?><feed/>'), 'notAPicture'],
    ['a cut off MP4', async () => (await readFile('demo/videos/dome-tall.mp4')).subarray(0, 900), 'brokenPicture'],
    ['a PNG of 60,000 by 60,000', async () => hugePng(), 'brokenPicture'],
    ['an empty file', async () => Buffer.alloc(0), 'emptyFile'],
    ['a file over the limit', async () => Buffer.alloc(PICTURE_LIMIT_BYTES + 1), 'tooBig'],
  ])('refuses %s and leaves nothing behind', async (_name, make, code) => {
    expect(await takeMedia(folder, await make(), 'dome.png')).toMatchObject({
      ok: false,
      refusal: { code, field: 'pictures' },
    });
    expect(await readdir(folder)).toEqual([]);
  });

  it.each([
    ['dome-tall.mp4', { mime: 'video/mp4', width: 540, height: 960, durationMs: 14_000 }],
    ['talk-wide.mp4', { mime: 'video/mp4', width: 960, height: 540, durationMs: 75_000 }],
    ['ferry-tall.webm', { mime: 'video/webm', width: 540, height: 960 }],
  ])('reads size and length of %s from its own boxes', async (file, expected) => {
    const taken = await takeMedia(folder, await readFile(join('demo/videos', file)), file);
    expect(taken).toMatchObject({ ok: true, value: expected });
    expect(taken.ok && taken.value.durationMs).toBeGreaterThan(5_000);
  });

  it('keeps a drawing as it is, script and all, with a thumbnail that is a picture', async () => {
    const drawing =
      '<svg xmlns="http://www.w3.org/2000/svg" width="300" height="200"><script>alert(1)</script><rect width="300" height="200" fill="#134E5E"/></svg>';
    const taken = await takeMedia(folder, Buffer.from(drawing), 'a.svg');
    expect(taken).toMatchObject({ ok: true, value: { mime: 'image/svg+xml', width: 300, height: 200 } });
    if (!taken.ok) return;
    const thumb = await readPictureFile(folder, taken.value.sha256, 'thumb');
    expect((await sharp(thumb).metadata()).format).toBe('webp');
    expect((await readPictureFile(folder, taken.value.sha256)).toString()).toBe(drawing);
  });

  it('ends an upload at the limit of what it is, holding no more than a little of it', async () => {
    const head = await readFile('demo/videos/dome-tall.mp4');
    let sent = 0;
    const endless = new ReadableStream<Uint8Array>({
      pull(controller) {
        const chunk = sent === 0 ? new Uint8Array(head) : new Uint8Array(4_000_000);
        sent += chunk.length;
        controller.enqueue(chunk);
      },
    });
    const before = process.memoryUsage().arrayBuffers;
    expect(await takeMedia(folder, endless, 'endless.mp4')).toMatchObject({ ok: false, refusal: { code: 'tooBig' } });
    expect(sent).toBeLessThan(VIDEO_LIMIT_BYTES + 100_000_000);
    expect(process.memoryUsage().arrayBuffers - before).toBeLessThan(300_000_000);
    expect(await readdir(folder)).toEqual([]);
  });

  it('refuses 3 GB before reading them', () => {
    expect(refuseBySize(3_000_000_000, 'big.mp4')).toMatchObject({ refusal: { code: 'tooBig' } });
    expect(refuseBySize(1000, 'small.jpg')).toBeNull();
  });

  it('keeps a file name harmless', async () =>
    expect(await takeMedia(folder, await canvas(9, 9).png().toBuffer(), '../../\u0000etc/passwd')).toMatchObject({
      value: { fileName: '....etcpasswd' },
    }));
});

/** A PNG whose head promises 60,000 by 60,000 pixels; its checksums are right. */
function hugePng(): Buffer {
  const chunk = (type: string, data: Buffer) => {
    const body = Buffer.concat([Buffer.from(type, 'latin1'), data]);
    const out = Buffer.alloc(8 + body.length);
    out.writeUInt32BE(data.length, 0);
    body.copy(out, 4);
    out.writeUInt32BE(crc32(body), 4 + body.length);
    return out;
  };
  const head = Buffer.alloc(13);
  head.writeUInt32BE(60_000, 0);
  head.writeUInt32BE(60_000, 4);
  head.set([8, 0, 0, 0, 0], 8);
  return Buffer.concat([
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
    chunk('IHDR', head),
    chunk('IDAT', deflateSync(Buffer.alloc(60_001))),
    chunk('IEND', Buffer.alloc(0)),
  ]);
}

/** CRC-32 as PNG has it (ISO 3309). */
function crc32(bytes: Buffer): number {
  let crc = 0xffffffff;
  for (const byte of bytes) {
    crc ^= byte;
    for (let bit = 0; bit < 8; bit++) crc = crc & 1 ? (crc >>> 1) ^ 0xedb88320 : crc >>> 1;
  }
  return (crc ^ 0xffffffff) >>> 0;
}
