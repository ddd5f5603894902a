import { readdir, rename, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { msBetween, type Instant } from '@/core/time/plan';
import type { Db } from '../database/db';
import { listKnownContents } from './library';
import { picturePath } from './mediaPaths';

/** How old a file has to be before it is cleared: whoever took it in has written its row by then. */
const LOOSE_AFTER_MS = 24 * 60 * 60_000;

/**
 * Clears a file that nothing pointed to, unless it was taken in again since: whoever does that lets it look new. It is put
 * aside first, so that nobody finds it while it goes.
 */
async function clear(path: string, isOld: (path: string) => Promise<boolean>): Promise<boolean> {
  const aside = `${path}.clearing`;
  await rename(path, aside);
  if (await isOld(aside)) {
    await rm(aside);
    return true;
  }
  await rename(aside, path);
  return false;
}

/**
 * Clears media files that no row points to any more, and uploads that broke off, a day after.
 *
 * @param kept files that a snapshot needs; null where that is not known: then only uploads go
 * @returns how many files went
 */
export async function clearLooseFiles(
  db: Db,
  folder: string,
  now: Instant,
  kept: ReadonlySet<string> | null,
): Promise<number> {
  const isOld = async (path: string) =>
    msBetween((await stat(path)).mtime.toISOString() as Instant, now) > LOOSE_AFTER_MS;
  let cleared = 0;
  for (const entry of await readdir(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name);
    if (entry.name.startsWith('incoming-')) {
      if (await isOld(path)) await rm(path, { force: true });
      continue;
    }
    if (!entry.isDirectory() || kept === null) continue;
    const names = (await readdir(path)).filter((name) => /^[0-9a-f]{64}$/.test(name));
    const old: string[] = [];
    for (const name of names) if (await isOld(join(path, name))) old.push(name);
    const known = await listKnownContents(db, old);
    for (const sha256 of old.filter((name) => !known.has(name) && !kept.has(name)))
      if (await clear(picturePath(folder, sha256, 'original'), isOld)) {
        for (const beside of ['thumb', 'bitmap'] as const)
          await rm(picturePath(folder, sha256, beside), { force: true });
        cleared++;
      }
  }
  return cleared;
}
