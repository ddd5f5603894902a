import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { cp, mkdir, mkdtemp, readdir, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { databaseError, openDb, OuterDbInTransactionError, SQLSTATE, type Db } from './db';
import { FolderInUseError, noteSetUp, takeFolder } from '../folder/folder';
import {
  checkReadable,
  migrate,
  MigrationError,
  pendingMigrations,
  readMigrations,
  UnreadableDbError,
} from './migrate';
import { readAsOf } from './asOf';
import { readPictureFile, takeMedia } from '../media/mediaFiles';
import {
  afterRestore,
  listSnapshots,
  restoreSnapshot,
  snapshotDueAt,
  SNAPSHOTS_KEPT,
  takeSnapshot,
} from '../folder/snapshots';
import { openTestDb } from './testDb';

/** The smallest PNG there is. */
const PIXEL = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);

describe('the database', () => {
  let db: Db;
  beforeAll(async () => void (db = await openTestDb()));
  afterAll(() => db.close());

  it('gives dates and times as text, instants in UTC, whatever the zone of this process', async () => {
    const before = process.env.TZ;
    for (const zone of ['America/New_York', 'Asia/Tokyo']) {
      process.env.TZ = zone;
      const rows = await db.rows(
        `select '2026-11-23'::date as date, '14:30'::time as time, '2026-11-23T14:30:00Z'::timestamptz as instant,
           '2026-11-23T02:30:00'::timestamp as local, 9007199254740991::bigint as big`,
      );
      expect(rows).toEqual([
        {
          date: '2026-11-23',
          time: '14:30',
          instant: '2026-11-23T14:30:00.000Z',
          local: '2026-11-23 02:30:00',
          big: 9007199254740991,
        },
      ]);
    }
    process.env.TZ = before;
  });

  it('refuses an integer it cannot hold exactly', () =>
    expect(db.rows('select 9007199254740993::bigint as big')).rejects.toThrow(RangeError));

  it('throws when the outer handle is used inside a transaction, instead of waiting for ever', () =>
    expect(db.transaction(() => db.rows('select 1'))).rejects.toThrow(OuterDbInTransactionError));

  it('writes nothing of a transaction that throws', async () => {
    await expect(
      db.transaction(async (tx) => {
        await tx.run(`insert into folder_facts values ('a', 'b')`);
        throw new Error('no');
      }),
    ).rejects.toThrow('no');
    expect(await db.rows('select * from folder_facts')).toEqual([]);
  });

  it('tells how far it has got: further with every write, not with reading', async () => {
    const before = await readAsOf(db);
    await db.rows('select * from folder_facts');
    expect(await readAsOf(db)).toBe(before);
    await db.run(`insert into folder_facts values ('as', 'of')`);
    const after = await readAsOf(db);
    expect(after).toBeGreaterThan(before);
    await db.transaction((tx) => tx.run(`delete from folder_facts where key = 'as'`));
    expect(await readAsOf(db)).toBeGreaterThan(after);
  });

  it('names the constraint that was broken', async () => {
    await db.run(`insert into folder_facts values ('k', 'v')`);
    const error = await db.run(`insert into folder_facts values ('k', 'w')`).catch((caught: unknown) => caught);
    expect(databaseError(error)).toEqual({ code: SQLSTATE.uniqueViolation, constraint: 'folder_facts_pkey' });
    expect(databaseError(new Error('other'))).toBeUndefined();
  });
});

describe('migrations', () => {
  it('leave nothing pending on a fresh database, and refuse a changed or unknown one', async () => {
    const db = await openTestDb();
    const known = await readMigrations();
    expect(await pendingMigrations(db, known)).toEqual([]);
    const changed = known.map((migration, index) => (index === 0 ? { ...migration, checksum: 'other' } : migration));
    await expect(pendingMigrations(db, changed)).rejects.toThrow(MigrationError);
    await expect(pendingMigrations(db, known.slice(0, -1))).rejects.toThrow(/newer Bimlo/);
    await db.close();
  });

  it('roll back whole when a statement fails, their row of history too', async () => {
    const db = await openTestDb();
    const known = await readMigrations();
    const broken = {
      number: known.length + 1,
      name: 'broken',
      sql: 'create table half (id int); select nothing_there()',
      checksum: 'x',
    };
    await expect(migrate(db, [broken])).rejects.toThrow();
    expect(await db.rows(`select 1 from pg_tables where tablename = 'half'`)).toEqual([]);
    expect(await pendingMigrations(db, [...known, broken])).toEqual([broken]);
    await db.close();
  });
});

describe('the check at the start', () => {
  it('passes a sound database and names the table that cannot be read', async () => {
    const db = await openTestDb();
    await checkReadable(db);
    const real = db.rows.bind(db);
    const damaged = {
      ...db,
      rows: <Row>(sql: string) => (sql.includes('posts') ? Promise.reject(new Error('invalid page')) : real<Row>(sql)),
    };
    await expect(checkReadable(damaged)).rejects.toThrow(UnreadableDbError);
    await expect(checkReadable(damaged)).rejects.toThrow(/table posts .*npm run restore/);
    await db.close();
  });
});

describe('the data folder', () => {
  let root: string;
  beforeEach(async () => void (root = await mkdtemp(join(tmpdir(), 'bimlo-folder-'))));
  afterEach(() => rm(root, { recursive: true }));

  const takeElsewhere = (script: string) =>
    spawnSync(
      process.execPath,
      ['--import', 'tsx', '-e', `import('./src/data/folder/folder.ts').then(async ({ takeFolder }) => { ${script} })`],
      {
        encoding: 'utf8',
        env: { ...process.env, ROOT_FOLDER: root },
      },
    );

  it('is taken by one process at a time, and is free again after that was killed', async () => {
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
    await (await takeFolder(root)).release();
  });

  it('moves a database aside whose first set-up never finished', async () => {
    await mkdir(join(root, 'db'));
    await writeFile(join(root, 'db', 'half'), '');
    const folder = await takeFolder(root);
    expect([existsSync(folder.db), existsSync(join(root, 'db.aside-1', 'half'))]).toEqual([false, true]);
    await folder.release();
  });

  it('is put back from a snapshot, with what stood there kept aside; seven snapshots are kept', async () => {
    const folder = await takeFolder(root);
    let db = await openDb(folder.db);
    await noteSetUp(folder);
    await db.run('create table said (word text)');
    await db.run(`insert into said values ('before')`);
    for (let day = 1; day <= SNAPSHOTS_KEPT + 2; day++) await takeSnapshot(db, folder, `2026-11-0${day}T10:00:00.000Z`);
    const names = await listSnapshots(folder);
    expect([names.length, names[0]]).toEqual([SNAPSHOTS_KEPT, '20261103T100000Z']);
    await db.run(`update said set word = 'after'`);
    await db.close();

    expect(await restoreSnapshot(folder, names.at(-1)!)).toEqual({ movedTo: `${folder.db}.aside-1` });
    db = await openDb(folder.db);
    expect(await db.rows('select word from said')).toEqual([{ word: 'before' }]);
    await db.close();
    await expect(restoreSnapshot(folder, '../../etc')).rejects.toThrow(/There is no snapshot/);
    expect(await readdir(root)).toContain('db.aside-1');
    await folder.release();
  });

  it('comes back from a snapshot and a copied media folder alone, and is told once that it did', async () => {
    const folder = await takeFolder(root);
    const db = await openDb(folder.db);
    await db.run('create table files (sha256 text)');
    const taken = await takeMedia(folder.media, PIXEL, 'dome.png');
    if (!taken.ok) throw new Error(taken.refusal.message);
    await db.run('insert into files values ($1)', [taken.value.sha256]);
    const name = await takeSnapshot(db, folder, '2026-11-23T10:00:00.000Z');

    const elsewhere = await mkdtemp(join(tmpdir(), 'bimlo-restored-'));
    await cp(folder.media, join(elsewhere, 'media'), { recursive: true });
    await cp(join(folder.snapshots, name), join(elsewhere, 'snapshots', name), { recursive: true });
    await db.close();
    await folder.release();
    const restored = await takeFolder(elsewhere);
    await restoreSnapshot(restored, name);
    const again = await openDb(restored.db);
    const [row] = await again.rows<{ sha256: string }>('select sha256 from files');
    expect((await readPictureFile(restored.media, row!.sha256)).equals(PIXEL)).toBe(true);
    let told = 0;
    for (let start = 0; start < 2; start++) await afterRestore(restored, async () => void told++);
    expect(told).toBe(1);
    await again.close();
    await restored.release();
    await rm(elsewhere, { recursive: true });
  });

  it('wants a snapshot once a day', () => {
    const now = '2026-11-23T10:00:00.000Z';
    expect(snapshotDueAt(undefined, now)).toBe(now);
    expect(snapshotDueAt('20261122T100001Z', now)).toBe('2026-11-23T10:00:01.000Z');
  });
});
