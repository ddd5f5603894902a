import { randomUUID } from 'node:crypto';
import { readFile, rm } from 'node:fs/promises';
import { join } from 'node:path';
import type { ParcelPicture } from '@/core/delivery/network';
import { AS_IT_IS } from '@/core/media/fit';
import { leavingMime } from '@/core/media/leaving';
import { natively } from '../native/children';
import { LostFileError, hasFile } from './mediaPaths';
import { drawnPath } from './drawings';

/** How long a picture may take to be made ready, in milliseconds. */
const LIMIT_MS = 30_000;

/** What a picture comes to as it leaves, without its bytes. */
export async function measureRendered(folder: string, stored: ParcelPicture): Promise<ParcelPicture> {
  return renderTo(folder, stored, null);
}

/**
 * Makes the picture that leaves out of a stored one: upright, cropped, converted and scaled down as its recipe says, and
 * without place, camera or any other data about it. An animation keeps its frames in every type that can move.
 *
 * @throws LostFileError when the file is not there
 * @throws when it cannot be brought under the bytes asked for
 */
export async function renderPicture(
  folder: string,
  stored: ParcelPicture,
): Promise<{ bytes: Uint8Array; picture: ParcelPicture }> {
  const to = join(folder, `incoming-${randomUUID()}`);
  try {
    const picture = await renderTo(folder, stored, to);
    return { bytes: await readFile(to), picture };
  } finally {
    await rm(to, { force: true });
  }
}

async function renderTo(folder: string, stored: ParcelPicture, to: string | null): Promise<ParcelPicture> {
  const { recipe = AS_IT_IS, rendered: _before, ...kept } = stored;
  if (!hasFile(folder, stored.sha256)) throw new LostFileError(stored.sha256);
  const path = await drawnPath(folder, stored, 'leaving');
  const rendered = await natively('leaving', 'render', { path, mime: stored.mime, recipe, to }, LIMIT_MS);
  return { ...kept, ...rendered, mime: leavingMime(stored.mime, recipe) };
}
