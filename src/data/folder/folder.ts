import { existsSync } from 'node:fs';
import { mkdir, open, readdir } from 'node:fs/promises';
import { join } from 'node:path';
import { tryLock } from 'fs-native-extensions';
import { MANIFEST } from './manifest';
import { renameSynced, writeSynced } from './synced';

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

/**
 * Another process has the data folder open.
 *
 * @internal
 */
export class FolderInUseError extends Error {
  constructor(root: string) {
    super(
      `Bimlo is running on ${root} already. End that one first, or choose another folder with BIMLO_DATA. Nothing was touched.`,
    );
  }
}

/**
 * There is no database in its place, though there was one: beginning empty would hide what can be put back.
 *
 * @internal
 */
export class NoDatabaseError extends Error {
  constructor(folder: Pick<DataFolder, 'root' | 'db'>, names: readonly string[]) {
    super(
      `There is no database in ${folder.db}, but there is one in ${names.join(', ')}. Put it in its place with “npm run restore -- ${names[0]}”. To begin empty instead, choose another folder with BIMLO_DATA, or move ${names.length === 1 ? 'it' : 'them'} out of ${folder.root}. Nothing was touched.`,
    );
  }
}

/** The note that a set-up went through. It lies in the folder, and in the database too, which may be copied alone. */
const SET_UP = 'set-up-finished';

/** Where a snapshot is copied to before it takes the database's place. */
export const RESTORING = 'db.restoring';

/** Whether a folder holds a database. */
export const holdsDb = (path: string): boolean => existsSync(join(/* turbopackIgnore: true */ path, 'PG_VERSION'));

/** Databases that lie beside the one in use: put aside by a restore, or not yet put in its place, the newest first. */
export async function listAside(root: string): Promise<string[]> {
  const number = (name: string) => Number(name.split('-').at(-1)) || Infinity;
  return (await readdir(root))
    .filter((name) => (/^db\.aside-\d+$/.test(name) || name === RESTORING) && holdsDb(join(root, name)))
    .sort((a, b) => number(b) - number(a));
}

/**
 * Takes a data folder for this process alone, by a lock of the operating system on its file `lock` (open file
 * description lock or its like, freed when the process dies). Two processes on one PGlite folder were seen to lose rows.
 *
 * @param options `toRestore`: something is about to be put in the database's place, so there need not be one
 * @throws FolderInUseError when another process holds it
 * @throws NoDatabaseError when its database is not in its place
 */
export async function takeFolder(root: string, { toRestore = false } = {}): Promise<DataFolder> {
  await mkdir(root, { recursive: true });
  const lock = await open(join(root, 'lock'), 'a+');
  if (!tryLock(lock.fd)) {
    await lock.close();
    throw new FolderInUseError(root);
  }
  const folder = { root, db: join(root, 'db'), media: join(root, 'media'), snapshots: join(root, 'snapshots') };
  await mkdir(folder.media, { recursive: true });
  await mkdir(folder.snapshots, { recursive: true });
  const places = [join(root, SET_UP), join(folder.db, SET_UP), join(folder.db, MANIFEST)];
  if (!places.some((path) => existsSync(/* turbopackIgnore: true */ path))) {
    if (existsSync(/* turbopackIgnore: true */ folder.db))
      await renameSynced(folder.db, unusedName(`${folder.db}.unfinished`));
  } else if (holdsDb(folder.db)) await noteSetUp(folder);
  const aside = await listAside(root);
  if (!toRestore && !holdsDb(folder.db) && aside.length > 0) {
    await lock.close();
    throw new NoDatabaseError(folder, aside);
  }
  return { ...folder, release: () => lock.close() };
}

/** Notes that the first set-up of the database went through; a database without this note is moved aside at the next start. */
export async function noteSetUp({ root, db }: Pick<DataFolder, 'root' | 'db'>): Promise<void> {
  for (const path of [join(db, SET_UP), join(root, SET_UP)])
    if (!existsSync(/* turbopackIgnore: true */ path)) await writeSynced(path, 'The database was set up completely.\n');
}

/** A name that begins with a path and is not taken: `db.aside-1`. */
export function unusedName(path: string): string {
  let number = 1;
  while (existsSync(`${path}-${number}`)) number++;
  return `${path}-${number}`;
}
