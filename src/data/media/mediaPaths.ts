import { existsSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';

/** Where the file with that content hash lies, its thumbnail, or the bitmap of a drawing. */
export const picturePath = (folder: string, sha256: string, size: 'original' | 'thumb' | 'bitmap'): string =>
  join(
    /* turbopackIgnore: true */ folder,
    sha256.slice(0, 2),
    `${sha256}${{ original: '', thumb: '.thumb.webp', bitmap: '.bitmap.png' }[size]}`,
  );

/** A file that a row points to is not in the folder: it was lost, or did not come with a copy. */
export class LostFileError extends Error {
  constructor(readonly sha256: string) {
    super(`the media file ${sha256} is not there`);
  }
}

/** Tells a file that is lost from whatever else went wrong while it was read. */
async function unlessLost<T>(sha256: string, reading: Promise<T>): Promise<T> {
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
): Promise<Buffer> => unlessLost(sha256, readFile(/* turbopackIgnore: true */ picturePath(folder, sha256, size)));

/** Whether the file of a stored picture or video is there. */
export const hasFile = (folder: string, sha256: string, size: 'original' | 'thumb' = 'original'): boolean =>
  existsSync(/* turbopackIgnore: true */ picturePath(folder, sha256, size));
