import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { cp, mkdir, mkdtemp, readdir, rename, rm, truncate, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { clearLooseFiles } from '../media/clearFiles';
import { takeMedia } from '../media/mediaFiles';
import { readPictureFile } from '../media/mediaPaths';
import { openDb, type Db } from '../database/db';
import { openTestDb } from '../database/testDb';
import { FolderInUseError, NoDatabaseError, noteSetUp, takeFolder, type DataFolder } from './folder';
import {
  adoptSnapshots,
  forgetSaidRestored,
  isSaidRestored,
  listKeptContents,
  listRestorable,
  listSnapshots,
  listWholeSnapshots,
  restoreSnapshot,
  snapshotDueAt,
  SNAPSHOTS_KEPT,
  takeSnapshot,
} from './snapshots';

/** The smallest PNG there is. */
const PIXEL = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);

let root: string;
let folder: DataFolder;
beforeEach(async () => void (root = await mkdtemp(join(tmpdir(), 'bimlo-folder-'))));
afterEach(async () => {
  await folder?.release();
  await rm(root, { recursive: true });
});

describe('the lock', () => {
  const takeElsewhere = (script: string) =>
    spawnSync(
      process.execPath,
      ['--import', 'tsx', '-e', `import('./src/data/folder/folder.ts').then(async ({ takeFolder }) => { ${script} })`],
      { encoding: 'utf8', env: { ...process.env, ROOT_FOLDER: root } },
    );

  it('is had by one process at a time, and is free again after that was killed', async () => {
    const mine = await takeFolder(root);
    const other = takeElsewhere(
      `await takeFolder(process.env.ROOT_FOLDER).catch((error) => { console.log(error.constructor.name); process.exit(3); });`,
    );
    expect([other.status, other.stdout.trim()]).toEqual([3, FolderInUseError.name]);
    await mine.release();
    const killed = takeElsewhere(
      `await takeFolder(process.env.ROOT_FOLDER); console.log('taken'); process.kill(process.pid, 'SIGKILL');`,
    );
    expect([killed.signal, killed.stdout.trim()]).toEqual(['SIGKILL', 'taken']);
    folder = await takeFolder(root);
  });
});

/**
 * A folder with a database in it that no process has open: what matters of it here is which files it has. The rows that a
 * snapshot asks for come from a database in memory.
 */
async function filled(word: string): Promise<Db> {
  folder = await takeFolder(root);
  await mkdir(join(folder.db, 'base'), { recursive: true });
  await writeFile(join(folder.db, 'PG_VERSION'), '18\n');
  await writeFile(join(folder.db, 'base', 'rows'), word);
  await noteSetUp(folder);
  const db = await openTestDb();
  return { ...db, whileStill: (work) => work() };
}

const take = (db: Db, day: number) => takeSnapshot(db, folder, `2026-11-${String(day).padStart(2, '0')}T10:00:00.000Z`);

describe('snapshots', () => {
  it('are kept for seven days, and put back with what stood there kept aside', async () => {
    const db = await filled('before');
    for (let day = 1; day <= SNAPSHOTS_KEPT + 2; day++) await take(db, day);
    const names = await listSnapshots(folder);
    expect([names.length, names[0]]).toEqual([SNAPSHOTS_KEPT, '20261103T100000Z']);
    await writeFile(join(folder.db, 'base', 'rows'), 'after and longer');
    expect(await restoreSnapshot(folder, names.at(-1)!)).toEqual({ movedTo: `${folder.db}.aside-1` });
    expect((await readdir(folder.db)).sort()).toEqual(['PG_VERSION', 'base', 'set-up-finished']);
    await expect(restoreSnapshot(folder, '../../etc')).rejects.toThrow(/There is no whole snapshot/);
    expect(await listRestorable(folder)).toEqual([...names, 'db.aside-1']);
    await restoreSnapshot(folder, 'db.aside-1');
    expect(await listRestorable(folder)).toEqual([...names, 'db.aside-2']);
    expect(isSaidRestored(folder)).toBe(true);
    await forgetSaidRestored(folder);
    expect(isSaidRestored(folder)).toBe(false);
    await db.close();
  });

  it('are wanted once a day, also after a clock that ran ahead', () => {
    const now = '2026-11-23T10:00:00.000Z';
    expect(snapshotDueAt([], now)).toBe(now);
    expect(snapshotDueAt(['20261122T100001Z'], now)).toBe('2026-11-23T10:00:01.000Z');
    expect(snapshotDueAt(['20261122T100001Z', '20270301T100000Z'], now)).toBe('2026-11-23T10:00:01.000Z');
    expect(snapshotDueAt(['20270301T100000Z'], now)).toBe(now);
  });

  it('that are torn are not offered and not put in place, and count for none of the day', async () => {
    const db = await filled('before');
    const [whole, cut, lacking] = [await take(db, 1), await take(db, 2), await take(db, 3)];
    await truncate(join(folder.snapshots, cut, 'base', 'rows'), 2);
    await rm(join(folder.snapshots, lacking, 'base'), { recursive: true });
    expect(await listWholeSnapshots(folder)).toEqual([whole]);
    await expect(restoreSnapshot(folder, cut)).rejects.toThrow(/no whole snapshot.*20261101T100000Z/);
    await db.close();
  });

  it('from before there were manifests are given one once', async () => {
    const db = await filled('before');
    const name = await take(db, 1);
    await rm(join(folder.snapshots, name, 'bimlo-snapshot.json'));
    expect(await listWholeSnapshots(folder)).toEqual([]);
    await adoptSnapshots(folder);
    expect(await listWholeSnapshots(folder)).toEqual([name]);
    expect(await listKeptContents(folder)).toBeNull();
    await db.close();
  });

  it('keep the pictures they need, though no row points to them any more', async () => {
    const db = await filled('before');
    const taken = await takeMedia(folder.media, PIXEL, 'dome.png');
    if (!taken.ok) throw new Error(taken.refusal.message);
    const { sha256 } = taken.value;
    // The row is there while the snapshot is taken, and gone afterwards.
    const asked = { ...db, rows: async <Row>() => [{ sha256 }] as Row[] };
    await takeSnapshot(asked, folder, '2026-11-23T10:00:00.000Z');
    const later = '2030-01-01T00:00:00.000Z';
    const kept = await listKeptContents(folder);
    expect(await clearLooseFiles(db, folder.media, later, kept)).toBe(0);
    expect(await readPictureFile(folder.media, sha256)).toEqual(PIXEL);
    expect(await clearLooseFiles(db, folder.media, later, new Set())).toBe(1);
    await db.close();
  });
});

describe('a start', () => {
  it('moves a database aside whose first set-up never finished, and begins empty', async () => {
    await mkdir(join(root, 'db'));
    await writeFile(join(root, 'db', 'PG_VERSION'), '18\n');
    folder = await takeFolder(root);
    expect([existsSync(folder.db), existsSync(join(root, 'db.unfinished-1'))]).toEqual([false, true]);
  });

  it.each([
    ['after the database was moved aside', 'db.aside-1'],
    ['before the copy had its name', 'db.restoring'],
  ])('after a restore that broke off %s says what there is instead of beginning empty', async (_when, name) => {
    const db = await filled('before');
    const snapshot = await take(db, 1);
    await db.close();
    if (name === 'db.restoring') await cp(join(folder.snapshots, snapshot), join(root, name), { recursive: true });
    else await rename(folder.db, join(root, name));
    await rm(folder.db, { recursive: true, force: true });
    await folder.release();
    await expect(takeFolder(root)).rejects.toThrow(NoDatabaseError);
    await expect(takeFolder(root)).rejects.toThrow(new RegExp(`npm run restore -- ${name}`));
    folder = await takeFolder(root, { toRestore: true });
    expect(await listRestorable(folder)).toContain(name);
    await restoreSnapshot(folder, name);
    await folder.release();
    folder = await takeFolder(root);
    expect((await readdir(folder.db)).sort()).toEqual(['PG_VERSION', 'base', 'set-up-finished']);
  });

  it('offers no copy that broke off halfway', async () => {
    const db = await filled('before');
    await cp(join(folder.snapshots, await take(db, 1)), join(root, 'db.restoring'), { recursive: true });
    await rm(join(root, 'db.restoring', 'base'), { recursive: true });
    expect(await listRestorable(folder)).toEqual(['20261101T100000Z']);
    await db.close();
  });
});

describe('a database on the disk', () => {
  it('comes back from a snapshot and a copied media folder alone; what ended by itself is told', async () => {
    folder = await takeFolder(root);
    const db = await openDb(folder.db);
    await db.run('create table files (sha256 text)');
    const taken = await takeMedia(folder.media, PIXEL, 'dome.png');
    if (!taken.ok) throw new Error(taken.refusal.message);
    await db.run('insert into files values ($1)', [taken.value.sha256]);
    const name = await takeSnapshot(db, folder, '2026-11-23T10:00:00.000Z', '-before-migration');

    const elsewhere = await mkdtemp(join(tmpdir(), 'bimlo-restored-'));
    await cp(folder.media, join(elsewhere, 'media'), { recursive: true });
    await cp(join(folder.snapshots, name), join(elsewhere, 'snapshots', name), { recursive: true });
    await db.close();
    const restored = await takeFolder(elsewhere, { toRestore: true });
    await restoreSnapshot(restored, name);
    let told = '';
    const again = await openDb(restored.db, undefined, (why) => (told = why.message));
    const [row] = await again.rows<{ sha256: string }>('select sha256 from files');
    expect((await readPictureFile(restored.media, row!.sha256)).equals(PIXEL)).toBe(true);
    await again.close();
    expect(told).toBe('');
    await restored.release();
    await rm(elsewhere, { recursive: true });
  }, 90_000);
});
