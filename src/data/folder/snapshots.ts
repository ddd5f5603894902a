import { cp, mkdir, readdir, rename, rm, writeFile } from 'node:fs/promises';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { addMs, type Instant } from '@/core/time/plan';
import type { Db } from '../database/db';
import { noteSetUp, unusedName, type DataFolder } from './folder';

/** How many snapshots are kept: a week of daily ones. */
export const SNAPSHOTS_KEPT = 7;
const DAY_MS = 24 * 60 * 60_000;
const NAME = /^\d{8}T\d{6}Z(?:-before-migration)?$/;

/** The snapshots of a folder, oldest first; each name begins with its instant. */
export async function listSnapshots(folder: Pick<DataFolder, 'snapshots'>): Promise<string[]> {
  return (await readdir(folder.snapshots)).filter((name) => NAME.test(name)).sort();
}

/** When the next snapshot is due: a day after the newest, or now where there is none. */
export const snapshotDueAt = (newest: string | undefined, now: Instant): Instant =>
  newest === undefined ? now : addMs(instantOf(newest), DAY_MS);

/**
 * Copies the database's files while nothing is written, under a name that tells when; older snapshots beyond seven go.
 * A copy that breaks off leaves a name that is not taken for a snapshot.
 */
export async function takeSnapshot(
  db: Db,
  folder: DataFolder,
  now: Instant,
  note: '' | '-before-migration' = '',
): Promise<string> {
  const name = now.replace(/\.\d+/, '').replace(/[-:]/g, '') + note;
  const target = join(folder.snapshots, name);
  const unfinished = join(folder.snapshots, 'unfinished');
  await rm(unfinished, { recursive: true, force: true });
  await mkdir(unfinished, { recursive: true });
  await db.whileStill(() => cp(folder.db, unfinished, { recursive: true }));
  await rm(target, { recursive: true, force: true });
  await rename(unfinished, target);
  const names = await listSnapshots(folder);
  for (const old of names.slice(0, Math.max(0, names.length - SNAPSHOTS_KEPT)))
    await rm(join(folder.snapshots, old), { recursive: true });
  return name;
}

const restoredMark = ({ root }: Pick<DataFolder, 'root'>): string => join(root, 'restored');

/**
 * Runs `work` once after a snapshot was put in place, at the first opening after it. When it fails it is run again at the
 * next.
 */
export async function afterRestore(folder: Pick<DataFolder, 'root'>, work: () => Promise<void>): Promise<void> {
  if (!existsSync(/* turbopackIgnore: true */ restoredMark(folder))) return;
  await work();
  await rm(/* turbopackIgnore: true */ restoredMark(folder), { force: true });
}

/** Puts a snapshot in the database's place. What stood there is moved aside, not deleted. The folder must be taken. */
export async function restoreSnapshot(folder: DataFolder, name: string): Promise<{ movedTo: string | null }> {
  const source = join(folder.snapshots, name);
  if (!NAME.test(name) || !existsSync(source))
    throw new Error(`There is no snapshot ${name}. There are: ${(await listSnapshots(folder)).join(', ') || 'none'}.`);
  const copy = join(folder.root, 'db.restoring');
  await rm(copy, { recursive: true, force: true });
  await cp(source, copy, { recursive: true });
  const movedTo = existsSync(folder.db) ? unusedName(folder.db) : null;
  if (movedTo) await rename(folder.db, movedTo);
  await rename(copy, folder.db);
  await writeFile(
    restoredMark(folder),
    'A snapshot was put in place: what it does not know is asked of the networks.\n',
  );
  await noteSetUp(folder);
  return { movedTo };
}

const instantOf = (name: string): Instant =>
  name.replace(/^(\d{4})(\d{2})(\d{2})T(\d{2})(\d{2})(\d{2})Z.*$/, '$1-$2-$3T$4:$5:$6.000Z');
