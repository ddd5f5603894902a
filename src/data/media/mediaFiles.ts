import { createHash, randomUUID } from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
import { mkdir, rm, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { fileTypeFromBuffer } from 'file-type';
import { DRAWING } from '@/core/media/leaving';
import { accept, refuse, type Result } from '@/core/refusal';
import { isFontTried } from '../cards/drawing';
import { isDiskFull } from '../database/diskFull';
import { renameSynced, syncPath, writeSynced } from '../folder/synced';
import { NativeFailedError, natively } from '../native/children';
import { PICTURE_LIMIT_PIXELS } from '@/core/media/limits';
import { picturePath } from './mediaPaths';
import { drawingText, drawOnce, whyTooCostly } from './drawings';

/**
 * Bytes of one picture that Bimlo takes in.
 *
 * @internal
 */
export const PICTURE_LIMIT_BYTES = 25_000_000;
/**
 * Bytes of one video that Bimlo takes in.
 *
 * @internal
 */
export const VIDEO_LIMIT_BYTES = 1_000_000_000;
/** Bytes of a drawing: it is read whole. */
const DRAWING_LIMIT_BYTES = 5_000_000;
/** Bytes at the beginning of a file by which it is recognised. */
const HEAD_BYTES = 4_100;

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
    if (error instanceof NativeFailedError) return refuse(...failed(error, shown));
    if (isDiskFull(error))
      return refuse(
        'diskFull',
        `There is no room left on the disk for “${shown}”. Nothing of it was kept. Make room and try again.`,
        'pictures',
      );
    throw error;
  } finally {
    await rm(temporary, { force: true });
    for (const beside of ['thumb', 'bitmap', 'bitmap.part']) await rm(`${temporary}.${beside}`, { force: true });
  }
}

/** Why a file was not taken in whose process was ended. */
const failed = ({ kind }: NativeFailedError, fileName: string): [code: string, message: string, field: string] => {
  switch (kind) {
    case 'busy':
      return [
        'busy',
        `So many files come in at present that “${fileName}” was not taken. Try again in a moment.`,
        'pictures',
      ];
    case 'time':
      return [
        'tooCostly',
        `“${fileName}” takes too long to be read, so it was left alone. Save it again, smaller or as a PNG.`,
        'pictures',
      ];
    case 'broken':
      return [
        'brokenPicture',
        `“${fileName}” could not be read, so it was left alone. Save it again and try again.`,
        'pictures',
      ];
  }
};

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
  if (!FONT_TYPES.includes(mime) || !(await isFontTried(bytes)))
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

/** How long a picture, and a recording, may take to be looked into, in milliseconds. */
const LOOK_MS = { picture: 20_000, recording: 20_000 } as const;

async function keep(
  folder: string,
  temporary: string,
  received: Pick<MediaFile, 'bytes' | 'mime' | 'fileName'>,
  takesSound: boolean,
): Promise<Result<MediaFile>> {
  const { mime, fileName } = received;
  const isRecording = [...VIDEO_TYPES, ...SOUND_TYPES].includes(mime);
  const costly = mime === DRAWING ? whyTooCostly(await drawingText(temporary), fileName) : null;
  if (costly) return costly;
  const [measures, sha256] = await Promise.all([
    isRecording
      ? natively('takenIn', 'recording', { path: temporary, takesSound }, LOOK_MS.recording).then(
          (read) => read && { ...read, thumb: null },
        )
      : decodeIn(temporary, mime),
    hashOf(temporary),
  ]);
  if (!measures)
    return refuse(
      'brokenPicture',
      isRecording
        ? `“${fileName}” is broken or cut off: no picture${takesSound ? ' or sound' : ''} track can be read from it. Save it again and try again.`
        : `“${fileName}” is broken or cut off, or has more than ${PICTURE_LIMIT_PIXELS / 1_000_000} megapixels. Save it again and try again.`,
      'pictures',
    );
  await makePlace(folder, sha256);
  if (measures.thumb) {
    await writeFile(`${temporary}.thumb`, measures.thumb);
    await renameSynced(`${temporary}.thumb`, picturePath(folder, sha256, 'thumb'));
  }
  if (mime === DRAWING) await renameSynced(`${temporary}.bitmap`, picturePath(folder, sha256, 'bitmap'));
  // One that lies there already is replaced: it may have been damaged, and looks new from now on, so that it is not cleared
  // before its row is written.
  await syncPath(temporary);
  await renameSynced(temporary, picturePath(folder, sha256, 'original'));
  const { width, height, durationMs } = measures;
  const isSoundOnly = isRecording && width === 0;
  return accept({ ...received, sha256, mime: isSoundOnly ? soundType(mime) : mime, width, height, durationMs });
}

/** Decodes a picture, a drawing by the bitmap that is made of it now. */
async function decodeIn(temporary: string, mime: string) {
  const bitmap = `${temporary}.bitmap`;
  if (mime === DRAWING && !(await drawOnce(temporary, bitmap, 'takenIn'))) return null;
  const path = mime === DRAWING ? bitmap : temporary;
  const decoded = await natively('takenIn', 'decode', { path }, LOOK_MS.picture);
  return decoded && { ...decoded, durationMs: null };
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

/** The media type that browsers know of a sound. */
const soundType = (mime: string): string =>
  mime === 'audio/mpeg' ? mime : mime.endsWith('wav') || mime.endsWith('wave') ? 'audio/wav' : 'audio/mp4';
