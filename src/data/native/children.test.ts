import { spawn } from 'node:child_process';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { takeMedia } from '../media/mediaFiles';
import { picturePath } from '../media/mediaPaths';
import { endNative, keepWarm, NativeFailedError, natively } from './children';
import { isCutOff } from './recording';

/** A drawing of a kilobyte that its painter takes minutes for. */
const ENDLESS = Buffer.from(
  `<svg xmlns="http://www.w3.org/2000/svg" width="3000" height="3000"><filter id="f" x="0" y="0" width="1" height="1">${'<feTurbulence baseFrequency="0.9" numOctaves="200"/><feGaussianBlur stdDeviation="300"/>'.repeat(8)}</filter><rect width="3000" height="3000" filter="url(#f)"/></svg>`,
);

let folder: string;
beforeAll(() => keepWarm());
afterAll(() => endNative());
beforeEach(async () => void (folder = await mkdtemp(join(tmpdir(), 'bimlo-native-'))));
afterEach(() => rm(folder, { recursive: true }));

describe('native work', () => {
  it('that takes longer than it may is ended with its process, and what comes next is done', async () => {
    const path = join(folder, 'a.svg');
    await writeFile(path, ENDLESS);
    const to = join(folder, 'a.png');
    await expect(natively('takenIn', 'bitmap', { path, to }, 300)).rejects.toMatchObject({ kind: 'time' });
    await writeFile(join(folder, 'b.png'), await sharp({ create: SMALL }).png().toBuffer());
    expect(await natively('takenIn', 'decode', { path: join(folder, 'b.png') }, 20_000)).toMatchObject({ width: 20 });
  }, 60_000);

  it('of one share holds up no other', async () => {
    const path = join(folder, 'a.svg');
    await writeFile(path, ENDLESS);
    let held = 0;
    const holding = Array.from({ length: 4 }, (_, n) =>
      natively('takenIn', 'bitmap', { path, to: join(folder, `${n}.png`) }, 2_000).catch(() => void held++),
    );
    await writeFile(join(folder, 'b.png'), await sharp({ create: SMALL }).png().toBuffer());
    const given = { path: join(folder, 'b.png'), mime: 'image/png', recipe: AS_IS, to: null };
    expect(await natively('leaving', 'render', given, 20_000)).toMatchObject({ width: 20 });
    // Two are drawn at once: of one share with them, it would have come after all four.
    expect(held).toBeLessThanOrEqual(2);
    await Promise.all(holding);
    expect(held).toBe(4);
  }, 60_000);

  it('tells of what went wrong in it, and its process lives on', async () => {
    const given = { path: join(folder, 'none'), mime: 'image/png', recipe: AS_IS, to: null };
    await expect(natively('leaving', 'render', given, 20_000)).rejects.toThrow(/ENOENT/);
    await expect(natively('leaving', 'render', given, 20_000)).rejects.not.toThrow(NativeFailedError);
  });
});

/** A parent that lets a process draw something endless, and says which. */
const PARENT = `
const { fork } = require('node:child_process');
const child = fork('src/data/native/program.mjs', [], { serialization: 'advanced', stdio: ['ignore', 'ignore', 'inherit', 'ipc'] });
child.once('message', () => {
  child.send({ deed: 'bitmap', given: { path: process.argv[1], to: process.argv[1] + '.png' } });
  setTimeout(() => console.log(child.pid), 500);
});`;

it.each(['SIGKILL', 'SIGTERM'] as const)(
  'a process for native work ends with the one that started it, in the middle of a drawing, after %s',
  async (signal) => {
    const path = join(folder, 'a.svg');
    await writeFile(path, ENDLESS);
    const parent = spawn(process.execPath, ['-e', PARENT, path], { stdio: ['ignore', 'pipe', 'inherit'] });
    const pid = Number(await new Promise((resolve) => parent.stdout.once('data', resolve)));
    parent.kill(signal);
    await expect.poll(() => isAlive(pid), { timeout: 5_000 }).toBe(false);
  },
  60_000,
);

function isAlive(pid: number): boolean {
  try {
    return process.kill(pid, 0);
  } catch {
    return false;
  }
}

const SMALL = { width: 20, height: 20, channels: 3, background: '#134e5e' } as const;
const AS_IS = { crop: null, toMime: null, toBytes: null };

describe('a drawing', () => {
  const drawing = (inside: string) =>
    Buffer.from(
      `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="40" height="30">${inside}</svg>`,
    );

  it('is made a bitmap once, when it is taken in', async () => {
    const taken = await takeMedia(folder, drawing('<rect width="40" height="30" fill="red"/>'), 'a.svg');
    if (!taken.ok) throw new Error(taken.refusal.message);
    expect(taken.value).toMatchObject({ mime: 'image/svg+xml', width: 40, height: 30 });
    expect(await sharp(picturePath(folder, taken.value.sha256, 'bitmap')).metadata()).toMatchObject({
      format: 'png',
      width: 40,
    });
  });

  it.each([
    ['filters', '<filter id="f">'.concat('<feGaussianBlur stdDeviation="9"/>'.repeat(41), '</filter>')],
    ['parts used again', '<g id="g"/>'.concat('<use href="#g"/>'.repeat(2_001))],
  ])('with too many %s is refused before it is drawn', async (_what, inside) => {
    expect(await takeMedia(folder, drawing(inside), 'a.svg')).toMatchObject({
      ok: false,
      refusal: { code: 'tooCostly' },
    });
  });

  it('that would take for ever is refused, and leaves nothing behind', async () => {
    expect(await takeMedia(folder, ENDLESS, 'a.svg')).toMatchObject({
      refusal: { code: 'tooCostly', message: expect.stringMatching(/^“a\.svg” takes too long/) as string },
    });
  }, 60_000);
});

describe('half a recording', () => {
  it.each([['MP4', 'demo/videos/dome-tall.mp4']])('of %s is told from a whole one', async (_type, path) => {
    const whole = await readFile(path);
    for (const [part, isCut] of [
      [whole, false],
      [whole.subarray(0, whole.length / 2), true],
      [whole.subarray(0, whole.length - 1), true],
    ] as const) {
      await writeFile(join(folder, 'part'), part);
      expect(await isCutOff(join(folder, 'part'))).toBe(isCut);
    }
    expect(await takeMedia(folder, whole.subarray(0, whole.length / 2), 'a.mp4')).toMatchObject({
      ok: false,
      refusal: { code: 'brokenPicture' },
    });
  });

  it('of WAV and WebM is told by the length they say', async () => {
    const wav = Buffer.alloc(1_044);
    wav.write('RIFF');
    wav.writeUInt32LE(1_036, 4);
    wav.write('WAVEfmt ', 8);
    const segment = (length: number[]) =>
      Buffer.concat([
        Buffer.from([0x1a, 0x45, 0xdf, 0xa3, 0x80, 0x18, 0x53, 0x80, 0x67, ...length]),
        Buffer.alloc(300),
      ]);
    for (const [bytes, isCut] of [
      [wav, false],
      [wav.subarray(0, 1_000), true],
      [segment([0x41, 0x2c]), false],
      [segment([0x41, 0x2d]), true],
      [segment([0x01, 0xff, 0xff, 0xff, 0xff, 0xff, 0xff, 0xff]), false],
    ] as const) {
      await writeFile(join(folder, 'part'), bytes);
      expect(await isCutOff(join(folder, 'part'))).toBe(isCut);
    }
  });
});
