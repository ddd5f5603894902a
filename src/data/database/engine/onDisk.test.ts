import fs from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { syncBuiltinESMExports } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { PGlite } from '@electric-sql/pglite';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { openOnDisk } from './onDisk.mjs';

/** What happened on the way to the disk, in order. */
const trace: string[] = [];
const real = { fsync: fs.fsyncSync, write: fs.writeSync, open: fs.openSync };
const names = new Map<number, string>();
let folder: string;
let lite: PGlite;

beforeAll(async () => {
  fs.openSync = ((path, ...rest) => {
    const number = real.open(path, ...(rest as [string]));
    names.set(number, String(path));
    return number;
  }) as typeof fs.openSync;
  fs.fsyncSync = (number) => {
    trace.push(`sync ${names.get(number)}`);
    real.fsync(number);
  };
  fs.writeSync = ((number: number, ...rest: unknown[]) => {
    trace.push(`write ${names.get(number)}`);
    return (real.write as (...all: unknown[]) => number)(number, ...rest);
  }) as typeof fs.writeSync;
  syncBuiltinESMExports();
  folder = await mkdtemp(join(tmpdir(), 'bimlo-disk-'));
  lite = await openOnDisk(join(folder, 'db'));
  await lite.exec('create table said (word text)');
});
afterAll(async () => {
  Object.assign(fs, { fsyncSync: real.fsync, writeSync: real.write, openSync: real.open });
  syncBuiltinESMExports();
  await lite.close();
  await rm(folder, { recursive: true });
});

it('has its log on the disk before a write is answered, each one', async () => {
  for (let n = 0; n < 20; n++) {
    trace.length = 0;
    await lite.query('insert into said values ($1)', ['yes']);
    expect(trace.filter((line) => line.includes('pg_wal'))).not.toEqual([]);
    expect(trace.findLast((line) => line.includes('pg_wal'))).toMatch(/^sync/);
  }
});

it('syncs a transaction once, when it is committed, and a reading never', async () => {
  trace.length = 0;
  await lite.transaction(async (tx) => {
    for (let n = 0; n < 5; n++) await tx.query('insert into said values ($1)', ['yes']);
    expect(trace.filter((line) => line.startsWith('sync'))).toEqual([]);
  });
  expect(trace.filter((line) => line.startsWith('sync'))).toHaveLength(1);
  trace.length = 0;
  await lite.query('select * from said');
  expect(trace.filter((line) => line.startsWith('sync'))).toEqual([]);
});
