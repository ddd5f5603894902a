import { createHash, randomUUID } from 'node:crypto';
import { createReadStream, createWriteStream, existsSync } from 'node:fs';
import { mkdir, readFile, rm, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { fileTypeFromBuffer } from 'file-type';
import { FilePathSource, Input, MATROSKA, MP3, MP4, QTFF, WAVE, WEBM } from 'mediabunny';
import sharp from 'sharp';
import { accept, refuse, type Result } from '@/core/refusal';
import { isFontInPool } from '../pool/drawCard';
import { isDiskFull } from '../database/diskFull';
import { renameSynced, syncPath, writeSynced } from '../folder/synced';

/** Bytes of one picture that Bimlo takes in. */
export const PICTURE_LIMIT_BYTES = 25_000_000;
/** Bytes of one video that Bimlo takes in. */
export const VIDEO_LIMIT_BYTES = 1_000_000_000;
/** Pixels of one picture that Bimlo takes in. */
export const PICTURE_LIMIT_PIXELS = 100_000_000;
/** Bytes of a drawing: it is read whole. */
const DRAWING_LIMIT_BYTES = 5_000_000;
/** Side of the square thumbnails, in pixels. */
const THUMB_SIDE = 192;
/** Bytes at the beginning of a file by which it is recognised. */
const HEAD_BYTES = 4_100;

const DRAWING = 'image/svg+xml';
const PICTURE_TYPES = ['image/jpeg', 'image/png', 'image/webp', 'image/gif', DRAWING];
const VIDEO_TYPES = ['video/mp4', 'video/webm'];
/** Of a recording without pictures. `file-type` calls an MP4 that holds only sound `audio/x-m4a`, or plain `video/mp4`. */
const SOUND_TYPES = ['audio/mpeg', 'audio/mp4', 'audio/x-m4a', 'audio/wav', 'audio/vnd.wave'];

/** A picture or video file that was looked into and lies in the folder. */
export interface MediaFile {
  /** SHA-256 of its bytes, hex; names the file. */
  sha256: string;
  mime: string;
  /** Pixels, after the orientation the file asks for. */
  width: number;
  height: number;
  /** How long a video runs; null for a picture. */
  durationMs: number | null;
  bytes: number;
  fileName: string;
}

class TooBig extends Error {}

/** Where the file with that content hash lies, or its thumbnail. */
export const picturePath = (folder: string, sha256: string, size: 'original' | 'thumb'): string =>
  join(folder, sha256.slice(0, 2), size === 'thumb' ? `${sha256}.thumb.webp` : sha256);

/** A file that a row points to is not in the folder: it was lost, or did not come with a copy. */
export class LostFileError extends Error {
  constructor(readonly sha256: string) {
    super(`the media file ${sha256} is not there`);
  }
}

/** Tells a file that is lost from whatever else went wrong while it was read. */
export async function unlessLost<T>(sha256: string, reading: Promise<T>): Promise<T> {
  try {
    return await reading;
  } catch (error) {
    if (error instanceof Error && 'code' in error && error.code === 'ENOENT') throw new LostFileError(sha256);
    throw error;
  }
}

/** The bytes of a stored picture. @throws LostFileError when the file is not there */
export const readPictureFile = (
  folder: string,
  sha256: string,
  size: 'original' | 'thumb' = 'original',
): Promise<Buffer> => unlessLost(sha256, readFile(picturePath(folder, sha256, size)));

/** Whether the file of a stored picture or video is there. */
export const hasFile = (folder: string, sha256: string, size: 'original' | 'thumb' = 'original'): boolean =>
  existsSync(picturePath(folder, sha256, size));

/**
 * Takes a picture or video in: streamed to a temporary file, recognised by its content, looked into to be sure that it is
 * not broken off, then put in its place under its content hash; a picture with a thumbnail. What is refused leaves nothing
 * behind.
 *
 * @param fileName as the person's machine calls it; only kept to be shown
 * @param options `takesSound`: whether a sound is taken as well
 */
export async function takeMedia(
  folder: string,
  source: ReadableStream<Uint8Array> | Uint8Array,
  fileName: string,
  { takesSound = false }: { takesSound?: boolean } = {},
): Promise<Result<MediaFile>> {
  const shown = fileName.replace(/[\p{C}/\\]/gu, '').slice(0, 200) || 'file';
  const temporary = join(folder, `incoming-${randomUUID()}`);
  try {
    const { bytes, mime } = await receive(source, temporary);
    if (bytes === 0) return refuse('emptyFile', `“${shown}” is empty. Choose another file.`, 'pictures');
    if (![...PICTURE_TYPES, ...VIDEO_TYPES, ...(takesSound ? SOUND_TYPES : [])].includes(mime))
      return refuse(
        'notAPicture',
        `“${shown}” is not a picture or video Bimlo takes${mime ? ` (it is ${mime})` : ''}. Take a JPEG, PNG, WebP, GIF or SVG, an MP4 or WebM${takesSound ? ', an MP3, M4A or WAV' : ''}.`,
        'pictures',
      );
    return await keep(folder, temporary, { bytes, mime, fileName: shown }, takesSound);
  } catch (error) {
    if (error instanceof TooBig) return refuse('tooBig', tooBig(shown), 'pictures');
    if (isDiskFull(error))
      return refuse(
        'diskFull',
        `There is no room left on the disk for “${shown}”. Nothing of it was kept. Make room and try again.`,
        'pictures',
      );
    throw error;
  } finally {
    await rm(temporary, { force: true });
    await rm(`${temporary}.thumb`, { force: true });
  }
}

/** Bytes of one font that Bimlo takes in. */
const FONT_LIMIT_BYTES = 10_000_000;
const FONT_TYPES = ['font/woff2', 'font/woff', 'font/ttf', 'font/otf'];

/** Takes a font in, recognised by its content and tried, and puts it in its place under its content hash. */
export async function takeFont(
  folder: string,
  bytes: Uint8Array,
  fileName: string,
): Promise<Result<Pick<MediaFile, 'sha256' | 'mime' | 'bytes' | 'fileName'>>> {
  const shown = fileName.replace(/[\p{C}/\\]/gu, '').slice(0, 200) || 'font';
  if (bytes.length > FONT_LIMIT_BYTES)
    return refuse('tooBig', `“${shown}” is larger than Bimlo takes as a font (10 MB).`, 'file');
  const mime = (await fileTypeFromBuffer(bytes))?.mime ?? '';
  if (!FONT_TYPES.includes(mime) || !(await isFontInPool(bytes)))
    return refuse('notAFont', `“${shown}” is no font that can be used. Take a WOFF2, WOFF, TTF or OTF.`, 'file');
  const sha256 = createHash('sha256').update(bytes).digest('hex');
  await makePlace(folder, sha256);
  await writeSynced(picturePath(folder, sha256, 'original'), bytes);
  return accept({ sha256, mime, bytes: bytes.length, fileName: shown });
}

/** Why a file of that many bytes is refused before it is read; null when it may come. */
export const refuseBySize = (bytes: number, fileName: string): Result<never> | null =>
  bytes > VIDEO_LIMIT_BYTES ? refuse('tooBig', tooBig(fileName), 'pictures') : null;

const tooBig = (fileName: string): string =>
  `“${fileName}” is larger than Bimlo takes: ${PICTURE_LIMIT_BYTES / 1_000_000} MB for a picture, 1 GB for a video. Scale it down or save it with more compression.`;

/** The media type by the first bytes; empty for what is not known. */
async function recognise(head: Uint8Array): Promise<string> {
  const found = await fileTypeFromBuffer(head);
  if (found && found.mime !== 'application/xml') return found.mime;
  const isDrawing = /^\uFEFF?\s*(?:<\?xml[^>]*>\s*)?(?:<!--[\s\S]*?-->\s*|<!DOCTYPE[^>]*>\s*)*<svg[\s>]/i.test(
    new TextDecoder().decode(head),
  );
  return isDrawing ? DRAWING : (found?.mime ?? '');
}

const limitOf = (mime: string): number =>
  VIDEO_TYPES.includes(mime) || SOUND_TYPES.includes(mime)
    ? VIDEO_LIMIT_BYTES
    : mime === DRAWING
      ? DRAWING_LIMIT_BYTES
      : PICTURE_LIMIT_BYTES;

/** Bytes of an upload that are held at most, so that small chunks are written together. */
const IN_FLIGHT_BYTES = 1_000_000;

/** Writes a stream to a file, up to the limit of what it turns out to be. */
async function receive(
  source: ReadableStream<Uint8Array> | Uint8Array,
  path: string,
): Promise<{ bytes: number; mime: string }> {
  let bytes = 0;
  let head = Buffer.alloc(0);
  let mime: string | null = null;
  const measure = new Transform({
    highWaterMark: IN_FLIGHT_BYTES,
    async transform(chunk: Buffer, _encoding, done) {
      bytes += chunk.length;
      if (head.length < HEAD_BYTES) head = Buffer.concat([head, chunk.subarray(0, HEAD_BYTES - head.length)]);
      if (mime === null && head.length >= HEAD_BYTES) mime = await recognise(head);
      done(mime !== null && bytes > limitOf(mime) ? new TooBig() : null, chunk);
    },
  });
  const readable = source instanceof Uint8Array ? Readable.from([source]) : Readable.fromWeb(source as never);
  await pipeline(readable, measure, createWriteStream(path, { highWaterMark: IN_FLIGHT_BYTES }));
  return { bytes, mime: mime ?? (await recognise(head)) };
}

async function keep(
  folder: string,
  temporary: string,
  received: Pick<MediaFile, 'bytes' | 'mime' | 'fileName'>,
  takesSound: boolean,
): Promise<Result<MediaFile>> {
  const { mime } = received;
  const isRecording = [...VIDEO_TYPES, ...SOUND_TYPES].includes(mime);
  // The hash is worked out while sharp decodes on threads of its own.
  const [measures, sha256] = await Promise.all([
    isRecording ? readRecording(temporary, takesSound) : decode(temporary, mime),
    hashOf(temporary),
  ]);
  const file = { ...received, sha256 };
  if (!measures)
    return refuse(
      'brokenPicture',
      isRecording
        ? `“${file.fileName}” is broken or cut off: no picture${takesSound ? ' or sound' : ''} track can be read from it. Save it again and try again.`
        : `“${file.fileName}” is broken or cut off, or has more than ${PICTURE_LIMIT_PIXELS / 1_000_000} megapixels. Save it again and try again.`,
      'pictures',
    );
  await makePlace(folder, sha256);
  const thumb = picturePath(folder, file.sha256, 'thumb');
  if (measures.thumb) {
    await writeFile(`${temporary}.thumb`, measures.thumb);
    await renameSynced(`${temporary}.thumb`, thumb);
  }
  // One that lies there already is replaced: it may have been damaged, and looks new from now on, so that it is not cleared
  // before its row is written.
  await syncPath(temporary);
  await renameSynced(temporary, picturePath(folder, file.sha256, 'original'));
  const { width, height, durationMs } = measures;
  const isSoundOnly = isRecording && width === 0;
  return accept({ ...file, mime: isSoundOnly ? soundType(mime) : mime, width, height, durationMs });
}

/** Makes the folder that a file of that content lies in. */
async function makePlace(folder: string, sha256: string): Promise<void> {
  const made = await mkdir(dirname(picturePath(folder, sha256, 'original')), { recursive: true });
  if (made !== undefined) await syncPath(folder);
}

/** SHA-256 of a file's bytes, hex. */
async function hashOf(path: string): Promise<string> {
  const hash = createHash('sha256');
  for await (const chunk of createReadStream(path, { highWaterMark: 1_000_000 })) hash.update(chunk as Buffer);
  return hash.digest('hex');
}

interface Measures {
  width: number;
  height: number;
  durationMs: number | null;
  /** Null for a video: the browser shows its first frame by itself. */
  thumb: Buffer | null;
}

/** Size and thumbnail of a picture, or null when it cannot be decoded to its end. */
async function decode(path: string, mime: string): Promise<Measures | null> {
  try {
    // A drawing is read from memory, so that nothing beside it can be drawn into it.
    const image = sharp(mime === DRAWING ? await readFile(path) : path, {
      failOn: 'error',
      limitInputPixels: PICTURE_LIMIT_PIXELS,
    });
    const { autoOrient } = await image.metadata();
    const thumb = await image
      .autoOrient()
      .resize(THUMB_SIDE, THUMB_SIDE, { fit: 'cover' })
      .webp({ quality: 78 })
      .toBuffer();
    return { width: autoOrient.width, height: autoOrient.height, durationMs: null, thumb };
  } catch (error) {
    // sharp has no codes for this: whatever libvips cannot decode comes as a plain Error.
    if (error instanceof Error) return null;
    throw error;
  }
}

/** The media type that browsers know of a sound. */
const soundType = (mime: string): string =>
  mime === 'audio/mpeg' ? mime : mime.endsWith('wav') || mime.endsWith('wave') ? 'audio/wav' : 'audio/mp4';

/** Size (0 for a sound) and length of a recording from its own boxes, or null when they cannot be read. */
async function readRecording(path: string, takesSound: boolean): Promise<Measures | null> {
  const input = new Input({ formats: [MP4, QTFF, WEBM, MATROSKA, MP3, WAVE], source: new FilePathSource(path) });
  try {
    const track = await input.getPrimaryVideoTrack();
    const durationMs = Math.round((await input.computeDuration()) * 1_000);
    if (!(durationMs > 0)) return null;
    if (!track) {
      const hasSound = takesSound && (await input.getPrimaryAudioTrack()) !== null;
      return hasSound ? { width: 0, height: 0, durationMs, thumb: null } : null;
    }
    return { width: track.displayWidth, height: track.displayHeight, durationMs, thumb: null };
  } catch (error) {
    // mediabunny has no codes for this: what it cannot read comes as a plain Error.
    if (error instanceof Error) return null;
    throw error;
  } finally {
    input.dispose();
  }
}
