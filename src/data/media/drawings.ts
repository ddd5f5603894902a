import { existsSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { DRAWING } from '@/core/media/leaving';
import { refuse, type Result } from '@/core/refusal';
import { renameSynced, syncPath } from '../folder/synced';
import { NativeFailedError, natively, type Share } from '../native/children';
import { LostFileError, picturePath } from './mediaPaths';

/** How long a drawing may take to be drawn, in milliseconds. */
const LIMIT_MS = 5_000;
/** What of a drawing costs its painter much: parts of filters, and things that are used again. */
const COSTLY = [
  { what: 'filter effects', most: 40, part: /<(?:[\w-]+:)?fe[A-Z]/g },
  { what: 'repeated parts', most: 2_000, part: /<(?:[\w-]+:)?use[\s/>]/g },
] as const;

/** What is wrong with a drawing before it is drawn; null where nothing is. */
export function whyTooCostly(drawing: string, fileName: string): Result<never> | null {
  for (const { what, most, part } of COSTLY) {
    const count = drawing.match(part)?.length ?? 0;
    if (count > most)
      return refuse(
        'tooCostly',
        `“${fileName}” has ${count} ${what}; Bimlo draws ${most} at most. Save it as a PNG.`,
        'pictures',
      );
  }
  return null;
}

/**
 * Makes a bitmap of a drawing beside its file, once: whatever is done with it afterwards is done with that.
 *
 * @returns whether it can be drawn
 * @throws NativeFailedError when that takes too long, or its process breaks
 */
export async function drawOnce(path: string, bitmap: string, share: Share): Promise<boolean> {
  const part = `${bitmap}.part`;
  if (!(await natively(share, 'bitmap', { path, to: part }, LIMIT_MS))) return false;
  await syncPath(part);
  await renameSynced(part, bitmap);
  return true;
}

/** Where the pixels of a stored picture lie: of a drawing, the bitmap that was made of it. @throws LostFileError where there are none */
export async function drawnPath(
  folder: string,
  { sha256, mime }: { sha256: string; mime: string },
  share: Share,
): Promise<string> {
  const original = picturePath(folder, sha256, 'original');
  if (mime !== DRAWING) return original;
  const bitmap = picturePath(folder, sha256, 'bitmap');
  // One that was taken in before bitmaps were made.
  if (!existsSync(bitmap) && !(await drawOnce(original, bitmap, share).catch(unlessBusy)))
    throw new LostFileError(sha256);
  return bitmap;
}

/** What cannot be drawn is none. @throws the error where it was not tried, for want of room */
function unlessBusy(error: unknown): false {
  if (error instanceof NativeFailedError && error.kind !== 'busy') return false;
  throw error;
}

/** The text of a drawing, for what is looked for in it. */
export const drawingText = async (path: string): Promise<string> => new TextDecoder().decode(await readFile(path));
