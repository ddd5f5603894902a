import { cp, mkdir, readdir, rm } from 'node:fs/promises';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { addMs, type Instant } from '@/core/time/plan';
import type { Db } from '../database/db';
import { listAllContents } from '../media/library';
import { holdsDb, listAside, noteSetUp, RESTORING, unusedName, type DataFolder } from './folder';
import { isWhole, MANIFEST, readManifest, writeManifest } from './manifest';
import { renameSynced, syncTree, writeSynced } from './synced';

/**
 * How many snapshots are kept: a week of daily ones.
 *
 * @internal
 */
export const SNAPSHOTS_KEPT = 7;
const DAY_MS = 24 * 60 * 60_000;
const NAME = /^\d{8}T\d{6}Z(?:-before-migration)?$/;

/**
 * The snapshots of a folder, oldest first; each name begins with its instant.
 *
 * @internal
 */
export async function listSnapshots(folder: Pick<DataFolder, 'snapshots'>): Promise<string[]> {
  return (await readdir(folder.snapshots)).filter((name) => NAME.test(name)).sort();
}

/** The snapshots that can be put in place: those that hold all that they held when they were taken. */
export async function listWholeSnapshots(folder: Pick<DataFolder, 'snapshots'>): Promise<string[]> {
  const names = await listSnapshots(folder);
  const whole = await Promise.all(names.map((name) => isWhole(join(folder.snapshots, name))));
  return names.filter((_, index) => whole[index]);
}

/**
 * When the next snapshot is due: a day after the newest, or now where there is none. Those taken while a clock ran ahead are not
 * looked at.
 */
export function snapshotDueAt(names: readonly string[], now: Instant): Instant {
  const newest = names.map(instantOf).findLast((at) => at <= now);
  return newest === undefined ? now : addMs(newest, DAY_MS);
}

/**
 * Copies the database's files while nothing is written, under a name that tells when; older snapshots beyond seven go.
 * A copy that breaks off leaves a name that is not taken for a snapshot; a whole one is on the disk before it has its name.
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
  // Before a migration the tables are not those that are asked.
  const contents = async () => (note === '' ? await listAllContents(db) : null);
  const before = await contents();
  await db.whileStill(() => cp(folder.db, unfinished, { recursive: true }));
  await writeManifest(unfinished, before && [...new Set([...before, ...((await contents()) ?? [])])]);
  await syncTree(unfinished);
  await rm(target, { recursive: true, force: true });
  await renameSynced(unfinished, target);
  const names = await listSnapshots(folder);
  for (const old of names.slice(0, Math.max(0, names.length - SNAPSHOTS_KEPT)))
    await rm(join(folder.snapshots, old), { recursive: true });
  return name;
}

/** Lets snapshots that were taken before there were manifests have one. To be called once, by the Bimlo that brings them. */
export async function adoptSnapshots(folder: Pick<DataFolder, 'snapshots'>): Promise<void> {
  for (const name of await listSnapshots(folder)) {
    const path = join(folder.snapshots, name);
    if (holdsDb(path) && !existsSync(join(path, MANIFEST))) await writeManifest(path, null);
  }
}

/**
 * The media files that kept snapshots and databases put aside need.
 *
 * @returns null where that is not known of one of them: then every file may be needed
 */
export async function listKeptContents(folder: Pick<DataFolder, 'root' | 'snapshots'>): Promise<Set<string> | null> {
  const kept = new Set<string>();
  for (const name of await listSnapshots(folder)) {
    const manifest = await readManifest(join(folder.snapshots, name));
    if (!manifest?.media) return null;
    for (const sha256 of manifest.media) kept.add(sha256);
  }
  return (await listAside(folder.root)).length > 0 ? null : kept;
}

const restoredMark = ({ root }: Pick<DataFolder, 'root'>): string => join(root, 'restored');

/** Whether a restore left word that it put something in the database's place. */
export const isSaidRestored = (folder: Pick<DataFolder, 'root'>): boolean =>
  existsSync(/* turbopackIgnore: true */ restoredMark(folder));

/** Takes that word away, once it is written down in the database. */
export const forgetSaidRestored = (folder: Pick<DataFolder, 'root'>): Promise<void> =>
  rm(/* turbopackIgnore: true */ restoredMark(folder), { force: true });

/** What can be put in the database's place: whole snapshots, oldest first, then databases that lie beside it. */
export async function listRestorable(folder: DataFolder): Promise<string[]> {
  const aside = await listAside(folder.root);
  const isTorn = aside.includes(RESTORING) && !(await isWhole(join(folder.root, RESTORING)));
  return [...(await listWholeSnapshots(folder)), ...aside.filter((name) => !(isTorn && name === RESTORING)).reverse()];
}

/**
 * Puts a snapshot, or a database that lies aside, in the database's place. What stood there is moved aside, not deleted. The
 * folder must be taken. Wherever it breaks off, a start says what there is and does not begin empty.
 */
export async function restoreSnapshot(folder: DataFolder, name: string): Promise<{ movedTo: string | null }> {
  const names = await listRestorable(folder);
  if (!names.includes(name))
    throw new Error(`There is no whole snapshot ${name}. There are: ${names.join(', ') || 'none'}.`);
  const restoring = join(folder.root, RESTORING);
  if (NAME.test(name)) {
    await rm(restoring, { recursive: true, force: true });
    await cp(join(folder.snapshots, name), restoring, { recursive: true });
    await syncTree(restoring);
  }
  const source = NAME.test(name) ? restoring : join(folder.root, name);
  await writeSynced(
    restoredMark(folder),
    'A snapshot was put in place: what it does not know is asked of the networks.\n',
  );
  const movedTo = holdsDb(folder.db) ? unusedName(`${folder.db}.aside`) : null;
  if (movedTo) await renameSynced(folder.db, movedTo);
  else await rm(folder.db, { recursive: true, force: true });
  await renameSynced(source, folder.db);
  await rm(join(folder.db, MANIFEST), { force: true });
  await noteSetUp(folder);
  return { movedTo };
}

const instantOf = (name: string): Instant =>
  name.replace(/^(\d{4})(\d{2})(\d{2})T(\d{2})(\d{2})(\d{2})Z.*$/, '$1-$2-$3T$4:$5:$6.000Z');
