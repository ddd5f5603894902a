import { createHash, randomUUID } from 'node:crypto';
import { createWriteStream, existsSync } from 'node:fs';
import { mkdir, readFile, rename, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { fileTypeFromFile } from 'file-type';
import sharp from 'sharp';
import { accept, refuse, type Result } from '@/core/refusal';

/** Bytes of one picture that Bimlo takes in. */
export const PICTURE_LIMIT_BYTES = 25_000_000;
/** Pixels of one picture that Bimlo takes in. */
export const PICTURE_LIMIT_PIXELS = 100_000_000;
/** Side of the square thumbnails, in pixels. */
const THUMB_SIDE = 192;

const TYPES: Record<string, string> = {
  'image/jpeg': 'JPEG',
  'image/png': 'PNG',
  'image/webp': 'WebP',
  'image/gif': 'GIF',
};

/** A picture file that was looked into and lies in the folder. */
export interface PictureFile {
  /** SHA-256 of its bytes, hex; names the file. */
  sha256: string;
  mime: string;
  /** Pixels, after the orientation the file asks for. */
  width: number;
  height: number;
  bytes: number;
  fileName: string;
}

class TooBig extends Error {}

/** Where the file with that content hash lies, or its thumbnail. */
export const picturePath = (folder: string, sha256: string, size: 'original' | 'thumb'): string =>
  join(folder, sha256.slice(0, 2), size === 'thumb' ? `${sha256}.thumb.webp` : sha256);

/** The bytes of a stored picture. @throws when the file is not there */
export const readPictureFile = (
  folder: string,
  sha256: string,
  size: 'original' | 'thumb' = 'original',
): Promise<Buffer> => readFile(picturePath(folder, sha256, size));

/**
 * Takes a picture in: streamed to a temporary file, recognised by its content, decoded whole to be sure that it is not
 * broken off, then put in its place under its content hash, with a thumbnail. What is refused leaves nothing behind.
 *
 * @param fileName as the person's machine calls it; only kept to be shown
 */
export async function takePicture(
  folder: string,
  source: ReadableStream<Uint8Array> | Uint8Array,
  fileName: string,
): Promise<Result<PictureFile>> {
  const shown = fileName.replace(/[\p{C}/\\]/gu, '').slice(0, 200) || 'picture';
  const temporary = join(folder, `incoming-${randomUUID()}`);
  try {
    const { sha256, bytes } = await receive(source, temporary);
    if (bytes === 0) return refuse('emptyFile', `“${shown}” is empty. Choose another file.`, 'pictures');
    const mime = (await fileTypeFromFile(temporary))?.mime ?? '';
    if (!(mime in TYPES))
      return refuse(
        'notAPicture',
        `“${shown}” is not a picture Bimlo takes${mime ? ` (it is ${mime})` : ''}. Take a JPEG, PNG, WebP or GIF.`,
        'pictures',
      );
    return await keep(folder, temporary, { sha256, bytes, mime, fileName: shown });
  } catch (error) {
    if (error instanceof TooBig) return refuse('tooBig', tooBig(shown), 'pictures');
    throw error;
  } finally {
    await rm(temporary, { force: true });
  }
}

/** Why a picture of that many bytes is refused before it is read; null when it may come. */
export const refuseBySize = (bytes: number, fileName: string): Result<never> | null =>
  bytes > PICTURE_LIMIT_BYTES ? refuse('tooBig', tooBig(fileName), 'pictures') : null;

const tooBig = (fileName: string): string =>
  `“${fileName}” is larger than ${PICTURE_LIMIT_BYTES / 1_000_000} MB. Scale it down or save it with more compression.`;

async function receive(
  source: ReadableStream<Uint8Array> | Uint8Array,
  path: string,
): Promise<{ sha256: string; bytes: number }> {
  const hash = createHash('sha256');
  let bytes = 0;
  const measure = new Transform({
    transform(chunk: Buffer, _encoding, done) {
      bytes += chunk.length;
      hash.update(chunk);
      done(bytes > PICTURE_LIMIT_BYTES ? new TooBig() : null, chunk);
    },
  });
  const readable = source instanceof Uint8Array ? Readable.from([source]) : Readable.fromWeb(source as never);
  await pipeline(readable, measure, createWriteStream(path));
  return { sha256: hash.digest('hex'), bytes };
}

async function keep(
  folder: string,
  temporary: string,
  file: Pick<PictureFile, 'sha256' | 'bytes' | 'mime' | 'fileName'>,
): Promise<Result<PictureFile>> {
  const decoded = await decode(temporary);
  if (!decoded)
    return refuse(
      'brokenPicture',
      `“${file.fileName}” is broken or cut off, or has more than ${PICTURE_LIMIT_PIXELS / 1_000_000} megapixels. Save it anew and try again.`,
      'pictures',
    );
  const target = picturePath(folder, file.sha256, 'original');
  await mkdir(join(folder, file.sha256.slice(0, 2)), { recursive: true });
  const thumb = picturePath(folder, file.sha256, 'thumb');
  if (!existsSync(thumb)) {
    await writeFile(`${temporary}.thumb`, decoded.thumb);
    await rename(`${temporary}.thumb`, thumb);
  }
  if (!existsSync(target)) await rename(temporary, target);
  return accept({ ...file, width: decoded.width, height: decoded.height });
}

/** Size and thumbnail of a picture, or null when it cannot be decoded to its end. */
async function decode(path: string): Promise<{ width: number; height: number; thumb: Buffer } | null> {
  try {
    const image = sharp(path, { failOn: 'error', limitInputPixels: PICTURE_LIMIT_PIXELS });
    const { autoOrient } = await image.metadata();
    const thumb = await image
      .autoOrient()
      .resize(THUMB_SIDE, THUMB_SIDE, { fit: 'cover' })
      .webp({ quality: 78 })
      .toBuffer();
    return { width: autoOrient.width, height: autoOrient.height, thumb };
  } catch (error) {
    // sharp has no codes for this: whatever libvips cannot decode comes as a plain Error.
    if (error instanceof Error) return null;
    throw error;
  }
}
