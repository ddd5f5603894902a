import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtemp, readdir, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { RunMark } from '@/core/folder/restored';
import { openDb, type Db } from '@/data/database/db';
import { noteSetUp, takeFolder, type DataFolder } from '@/data/folder/folder';
import { readPosition } from '@/data/folder/marks';
import { restoreSnapshot } from '@/data/folder/snapshots';
import { writeManifest } from '@/data/folder/manifest';
import { lookAtRun } from './runs';

const clock = { now: () => '2026-11-23T10:00:00.000Z' };
const hasRsync = spawnSync('rsync', ['--version']).status === 0;
const sh = (command: string) => execFileSync('/bin/sh', ['-c', command]);
const SNAPSHOT = '20261123T100000Z';

let base: string;
let root: string;
beforeEach(async () => {
  base = await mkdtemp(join(tmpdir(), 'bimlo-runs-'));
  root = join(base, 'folder');
});
afterEach(() => rm(base, { recursive: true }));

/** What a start needs of a database, in one file of its folder: its facts, and a log that grows with each write. */
async function littleDb(folder: DataFolder): Promise<Db> {
  const file = join(folder.db, 'state.json');
  const state = JSON.parse(await readFile(file, 'utf8').catch(() => '{"log": 16, "facts": {}}')) as {
    log: number;
    facts: Record<string, string>;
  };
  const little = {
    rows: async (sql: string, [key]: string[] = []) =>
      sql.includes('pg_current_wal')
        ? [{ position: `0/${state.log.toString(16).toUpperCase()}` }]
        : key! in state.facts
          ? [{ value: state.facts[key!] }]
          : [],
    run: async (_sql: string, [key, value]: string[] = []) => {
      state.log++;
      if (key) state.facts[key] = value!;
      await writeFile(file, JSON.stringify(state));
      return 1;
    },
    transaction: (work: (tx: unknown) => Promise<unknown>) => work(little),
  };
  return little as unknown as Db;
}

/** Starts on a folder as Bimlo does, writes something, and ends. @returns the signs it saw */
async function runOnce(end: 'well' | 'killed' = 'well'): Promise<string[]> {
  const folder = await takeFolder(root, { toRestore: true });
  const db = await littleDb(folder);
  const run = await lookAtRun(db, folder, clock);
  await run.begin();
  await db.run('more');
  if (end === 'well') await run.stop();
  await folder.release();
  return run.signs;
}

/** A folder that ran twice, with a snapshot and a copy of it from an hour before its last run. */
async function copied(): Promise<string> {
  sh(`mkdir -p ${root}/db ${root}/snapshots && echo 18 > ${root}/db/PG_VERSION`);
  await noteSetUp({ root, db: join(root, 'db') });
  await runOnce();
  sh(`cp -a ${root}/db ${root}/snapshots/${SNAPSHOT}`);
  await writeManifest(join(root, 'snapshots', SNAPSHOT), []);
  const [name] = (await readdir(root)).filter((one) => one.startsWith('ran-'));
  const mark = JSON.parse(await readFile(join(root, name!), 'utf8')) as RunMark;
  await writeFile(join(root, name!), JSON.stringify({ ...mark, atMs: mark.atMs - 3_600_000 }));
  sh(`cp -a ${root} ${base}/old && find ${base}/old -exec touch -d '1 hour ago' {} +`);
  await runOnce();
  return join(base, 'old');
}

describe('a folder that is started', () => {
  it('is what ran last, however often, and also after it was killed or its owner was set anew', async () => {
    await copied();
    expect(await runOnce('killed')).toEqual([]);
    sh(`chown -R "$(id -u)" ${root}`);
    expect(await runOnce('killed')).toEqual([]);
    sh(`mv ${root} ${base}/elsewhere`);
    root = join(base, 'elsewhere');
    expect(await runOnce()).toEqual([]);
  });

  it.each([
    ['cp -a into an emptied folder', (old: string) => `rm -rf ${root}/* && cp -a ${old}/. ${root}/`],
    ['cp -a over the old one', (old: string) => `cp -a ${old}/. ${root}/`],
    ['tar over the old one', (old: string) => `tar -C ${old} -cf - . | tar -C ${root} -xf -`],
    ['tar into an emptied folder', (old: string) => `rm -rf ${root}/* && tar -C ${old} -cf - . | tar -C ${root} -xf -`],
    ['the database alone', (old: string) => `rm -rf ${root}/db && cp -a ${old}/db ${root}/db`],
    ['the newest snapshot, and nothing beside it', (old: string) => `rm -rf ${root}/* && cp -a ${old}/db ${root}/db`],
  ])('is seen to be older after %s, once', async (_way, command) => {
    sh(command(await copied()));
    expect(await runOnce()).not.toEqual([]);
    expect(await runOnce()).toEqual([]);
  });

  it.skipIf(!hasRsync).each([
    ['rsync -a', ''],
    ['rsync -a --delete', '--delete'],
  ])('is seen to be older after %s, once', async (_way, option) => {
    sh(`rsync -a ${option} ${await copied()}/ ${root}/`);
    expect(await runOnce()).not.toEqual([]);
    expect(await runOnce()).toEqual([]);
  });

  it.each(['', '{"run": 2', '{"run": 2, "beat": 1, "position": "x", "atMs": 0, "inode": "1"}', 'null'])(
    'whose mark reads “%s” is one without a mark',
    async (content) => {
      await copied();
      const [name] = (await readdir(root)).filter((one) => one.startsWith('ran-'));
      await writeFile(join(root, name!), content);
      expect(await runOnce()).toEqual(['unmarked']);
      expect(await runOnce()).toEqual([]);
    },
  );

  it('is told by a restore of its own, once', async () => {
    await copied();
    const folder = await takeFolder(root);
    await restoreSnapshot(folder, SNAPSHOT);
    await folder.release();
    expect(await runOnce()).toEqual(['said', 'older']);
    expect(await runOnce()).toEqual([]);
  });
});

it('the log of a real database goes on where it was, over an end and a death', async () => {
  let db = await openDb(join(base, 'db'));
  await db.run('create table said (word text)');
  const first = await readPosition(db);
  expect(first).toMatch(/^[0-9A-F]+\/[0-9A-F]+$/);
  await db.close();
  db = await openDb(join(base, 'db'));
  const second = await readPosition(db);
  await db.run(`insert into said values ('more')`);
  expect(BigInt(`0x${second.split('/')[1]}`)).toBeGreaterThanOrEqual(BigInt(`0x${first.split('/')[1]}`));
  sh(`cp -a ${base}/db ${base}/as-killed`);
  const third = await readPosition(db);
  await db.close();
  db = await openDb(join(base, 'as-killed'));
  expect(BigInt(`0x${(await readPosition(db)).split('/')[1]}`)).toBeGreaterThanOrEqual(
    BigInt(`0x${third.split('/')[1]}`),
  );
  await db.close();
});
