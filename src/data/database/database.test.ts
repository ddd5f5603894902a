import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { databaseError, OuterDbInTransactionError, SQLSTATE, type Db } from './db';
import {
  checkReadable,
  migrate,
  MigrationError,
  pendingMigrations,
  readMigrations,
  UnreadableDbError,
} from './migrate';
import { readAsOf } from './asOf';
import { openTestDb } from './testDb';

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
