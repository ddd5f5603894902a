import { readdir, readFile, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { writeSynced } from './synced';

/** What a snapshot holds, written into it when it is whole: one that was cut off, or lost files since, is told by it. */
interface Manifest {
  files: number;
  bytes: number;
  /** SHA-256 of the pictures, videos and fonts that the snapshot's rows point to; null where that was not asked. */
  media: readonly string[] | null;
}

/** The name of the file that holds it. */
export const MANIFEST = 'bimlo-snapshot.json';

/** Counts the files of a folder and their bytes, the manifest left out. */
async function measure(root: string): Promise<Pick<Manifest, 'files' | 'bytes'>> {
  let [files, bytes] = [0, 0];
  for (const entry of await readdir(root, { withFileTypes: true })) {
    if (entry.name === MANIFEST) continue;
    const path = join(root, entry.name);
    const inside = entry.isDirectory() ? await measure(path) : { files: 1, bytes: (await stat(path)).size };
    files += inside.files;
    bytes += inside.bytes;
  }
  return { files, bytes };
}

/** Writes the manifest of a snapshot that was copied whole. */
export async function writeManifest(snapshot: string, media: Manifest['media']): Promise<void> {
  await writeSynced(
    join(snapshot, MANIFEST),
    JSON.stringify({ ...(await measure(snapshot)), media } satisfies Manifest),
  );
}

/** The manifest of a snapshot as it was written, whatever the snapshot holds by now; null where there is none that can be read. */
export async function readManifest(snapshot: string): Promise<Manifest | null> {
  try {
    return JSON.parse(await readFile(join(snapshot, MANIFEST), 'utf8')) as Manifest;
  } catch (error) {
    // Not there, or not whole: the snapshot is not either.
    if (error instanceof SyntaxError || (error instanceof Error && 'code' in error && error.code === 'ENOENT'))
      return null;
    throw error;
  }
}

/** Whether a snapshot holds what its manifest says. */
export async function isWhole(snapshot: string): Promise<boolean> {
  const manifest = await readManifest(snapshot);
  const { files, bytes } = await measure(snapshot);
  return manifest !== null && manifest.files === files && manifest.bytes === bytes;
}
