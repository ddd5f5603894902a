import { open, readdir, rename, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';

/** Lets the system write what it holds of a file, or of a folder's list of names, to the disk. */
export async function syncPath(path: string): Promise<void> {
  const handle = await open(path, 'r');
  try {
    await handle.sync();
  } finally {
    await handle.close();
  }
}

/** Lets the system write a folder with all that is in it to the disk. */
export async function syncTree(root: string): Promise<void> {
  for (const entry of await readdir(root, { withFileTypes: true })) {
    const path = join(root, entry.name);
    if (entry.isDirectory()) await syncTree(path);
    else if (entry.isFile()) await syncPath(path);
  }
  await syncPath(root);
}

/** Gives a file or folder another name, which is on the disk once this resolves. What it holds has to be synced before. */
export async function renameSynced(from: string, to: string): Promise<void> {
  await rename(from, to);
  await syncPath(dirname(to));
  if (dirname(from) !== dirname(to)) await syncPath(dirname(from));
}

/** Writes a file whole: under its name stands the old content or the new, never a part, also after a power cut. */
export async function writeSynced(path: string, content: string | Uint8Array): Promise<void> {
  const part = `${path}.part`;
  await writeFile(part, content);
  await syncPath(part);
  await renameSynced(part, path);
}
