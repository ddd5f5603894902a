import { existsSync } from 'node:fs';
import { mkdir, open, rename, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { tryLock } from 'fs-native-extensions';

/** Where things lie in a data folder. */
export interface DataFolder {
  root: string;
  /** PGlite's files. */
  db: string;
  media: string;
  snapshots: string;
  /** Gives the lock back. The system does so too when the process ends in any way. */
  release(): Promise<void>;
}

/** Another process has the data folder open. */
export class FolderInUseError extends Error {
  constructor(root: string) {
    super(
      `Bimlo is running on ${root} already. End that one first, or choose another folder with BIMLO_DATA. Nothing was touched.`,
    );
  }
}

const SET_UP = 'set-up-finished';

/**
 * Takes a data folder for this process alone, by a lock of the operating system on its file `lock` (open file
 * description lock or its like, freed when the process dies). Two processes on one PGlite folder were seen to lose rows.
 *
 * @throws FolderInUseError when another process holds it
 */
export async function takeFolder(root: string): Promise<DataFolder> {
  await mkdir(root, { recursive: true });
  const lock = await open(join(root, 'lock'), 'a+');
  if (!tryLock(lock.fd)) {
    await lock.close();
    throw new FolderInUseError(root);
  }
  const folder = { root, db: join(root, 'db'), media: join(root, 'media'), snapshots: join(root, 'snapshots') };
  await mkdir(folder.media, { recursive: true });
  await mkdir(folder.snapshots, { recursive: true });
  if (existsSync(/* turbopackIgnore: true */ folder.db) && !existsSync(join(/* turbopackIgnore: true */ root, SET_UP)))
    await rename(folder.db, unusedName(folder.db));
  return { ...folder, release: () => lock.close() };
}

/** Notes that the first set-up of the database went through; a folder without this note is moved aside at the next start. */
export async function noteSetUp(folder: Pick<DataFolder, 'root'>): Promise<void> {
  await writeFile(join(folder.root, SET_UP), 'The database in db/ was set up completely.\n');
}

/** A name beside a path that is not taken: `db.aside-1`. */
export function unusedName(path: string): string {
  let number = 1;
  while (existsSync(`${path}.aside-${number}`)) number++;
  return `${path}.aside-${number}`;
}
