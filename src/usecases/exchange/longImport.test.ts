import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { readCsv } from '@/core/exchange/csvText';
import type { ImportMapping } from '@/core/exchange/planImport';
import type { Db } from '@/data/database/db';
import { forgetImports } from '@/data/exchange/imports';
import { listJobs } from '@/data/jobs/testJobs';
import { codeOf, makeWorld, START, valueOf, type TestWorld } from '../testWorld';
import type { ImportExtent } from './importPosts';
import {
  IMPORT_JOB,
  maybeRunningImport,
  readImport,
  runImport,
  SLICE_ROWS,
  startImport,
  stopImport,
} from './longImport';
import { previewImport } from './previewImport';

const ROWS = 2 * SLICE_ROWS + 50;

let world: TestWorld;
beforeEach(async () => void (world = await makeWorld()));
afterEach(() => world.close());

const rowsOf = (count: number) =>
  Array.from(
    { length: count },
    (_, n) => `Piece ${n % 7},Row ${n},PL,2026-12-${String((n % 28) + 1).padStart(2, '0')},Words ${n}`,
  );
const fileOf = (rows: readonly string[]) => ['piece,title,channel,date,caption', ...rows].join('\n');

async function start(rows: readonly string[], extent: ImportExtent = 'whole', change: Partial<ImportMapping> = {}) {
  const table = valueOf(readCsv(fileOf(rows)));
  const { mapping } = valueOf(await previewImport(world.db, world.brandId, START, table, 'plan.csv', null));
  const file = { brandId: world.brandId, table, fileName: 'plan.csv', mapping: { ...mapping, ...change }, extent };
  return startImport(world.work, file);
}
const count = async () => (await world.db.rows<{ n: number }>('select count(*)::int as n from posts'))[0]!.n;
const standsAt = async (id: string) => valueOf(await readImport(world.work, id));

/** A database that does something before its so-manieth transaction. */
function before(number: number, deed: () => Promise<unknown> | never): Db {
  let transactions = 0;
  return {
    ...world.db,
    transaction: async (work) => {
      if (++transactions === number) await deed();
      return world.db.transaction(work);
    },
  };
}
const breakAt = (number: number) =>
  before(number, () => {
    throw new Error('the power went');
  });

describe('a long import', () => {
  it('waits as a job, then brings every row in and remembers what became of each', async () => {
    const there = await count();
    const { id } = valueOf(await start(rowsOf(ROWS)));
    expect(await listJobs(world.db)).toMatchObject([{ kind: IMPORT_JOB, subject: id }]);
    expect(await standsAt(id)).toMatchObject({ state: 'waiting', rowCount: ROWS, doneCount: 0 });
    expect(await count()).toBe(there);
    await runImport(world.work, id);
    expect(await standsAt(id)).toMatchObject({
      state: 'done',
      doneCount: ROWS,
      outcome: { made: ROWS, changed: 0, same: 0 },
    });
    expect(await count()).toBe(there + ROWS);
    expect(await world.db.rows('select file from imports')).toEqual([{ file: '' }]);

    const again = valueOf(await start(rowsOf(ROWS)));
    await runImport(world.work, again.id);
    expect(await standsAt(again.id)).toMatchObject({ state: 'done', outcome: { made: 0, same: ROWS } });
  });

  it('of a file that has to come whole writes nothing while one row is bad, however late it comes', async () => {
    const there = await count();
    await world.db.run(`update channels set archived_at = now() where call_sign = 'GR'`);
    const { id } = valueOf(await start([...rowsOf(ROWS), 'Late,Late row,GR,2026-12-24,x']));
    await runImport(world.work, id);
    const { state, refusal, outcome } = await standsAt(id);
    expect([state, refusal?.code, outcome.made]).toEqual(['refused', 'badRows', 0]);
    expect(refusal!.message).toContain(`Line ${ROWS + 2}`);
    expect(await count()).toBe(there);
  });

  it('of the good rows names the others', async () => {
    await world.db.run(`update channels set archived_at = now() where call_sign = 'GR'`);
    const { id } = valueOf(await start([...rowsOf(ROWS), 'Late,Late row,GR,2026-12-24,x'], 'good'));
    await runImport(world.work, id);
    expect(await standsAt(id)).toMatchObject({
      state: 'done',
      outcome: { made: ROWS, bad: [{ line: ROWS + 2, reason: expect.stringContaining('archived') }] },
    });
  });

  // The transactions of a run: planning, three of checking, the end of checking, then the slices.
  it.each([1, 3, 5, 6, 7, 8])(
    'broken off at its transaction %i goes on where it was, and doubles nothing',
    async (at) => {
      const there = await count();
      const { id } = valueOf(await start(rowsOf(ROWS)));
      await expect(runImport({ ...world.work, db: breakAt(at) }, id)).rejects.toThrow('the power went');
      const made = (await standsAt(id)).outcome.made;
      expect(await count()).toBe(there + made);
      await runImport(world.work, id);
      expect(await standsAt(id)).toMatchObject({ state: 'done', outcome: { made: ROWS, same: 0 } });
      expect(await count()).toBe(there + ROWS);
    },
  );

  it.each([1, 3, 7])('that meets a full disk at its transaction %i is tried again, not refused', async (at) => {
    const { id } = valueOf(await start(rowsOf(ROWS)));
    const full = before(at, () => {
      throw Object.assign(new Error('could not extend file'), { code: '53100' });
    });
    await expect(runImport({ ...world.work, db: full }, id)).rejects.toThrow('disk');
    expect((await standsAt(id)).endedAt).toBeNull();
    await runImport(world.work, id);
    expect(await standsAt(id)).toMatchObject({ state: 'done', outcome: { made: ROWS } });
  });

  it('lets others in between its slices, and holds each slice against what they did', async () => {
    const db = before(6, () => world.db.run(`update channels set archived_at = now() where call_sign = 'PL'`));
    const { id } = valueOf(await start(rowsOf(ROWS)));
    await runImport({ ...world.work, db }, id);
    const { state, outcome } = await standsAt(id);
    expect([state, outcome.made, outcome.bad.length]).toEqual(['done', SLICE_ROWS, ROWS - SLICE_ROWS]);
  });

  it('stops after the slice it is at; the same file again brings the rest', async () => {
    const { id } = valueOf(await start(rowsOf(ROWS), 'good'));
    const db = before(1, async () => valueOf(await stopImport(world.work, id)));
    await runImport({ ...world.work, db }, id);
    expect(await standsAt(id)).toMatchObject({
      state: 'stopped',
      doneCount: SLICE_ROWS,
      outcome: { made: SLICE_ROWS },
    });
    const rest = valueOf(await start(rowsOf(ROWS), 'good'));
    await runImport(world.work, rest.id);
    expect(await standsAt(rest.id)).toMatchObject({ outcome: { made: ROWS - SLICE_ROWS, same: SLICE_ROWS } });
  });

  it('is on the audit list once it changed something, not where nothing came in', async () => {
    const noted = () => world.db.rows("select detail from audit where kind = 'imported'", []);
    const none = valueOf(await start([...rowsOf(ROWS), `Long,${'x'.repeat(201)},PL,2026-12-01,x`], 'good'));
    await world.db.run("update channels set archived_at = now() where call_sign = 'PL'", []);
    await runImport(world.work, none.id);
    expect(await noted()).toEqual([]);
    await world.db.run('update channels set archived_at = null', []);
    const { id } = valueOf(await start(rowsOf(ROWS)));
    expect(await noted()).toEqual([]);
    await runImport(world.work, id);
    expect(await noted()).toEqual([{ detail: 'plan.csv' }]);
  });

  it('breaks off when the process ends, and goes on later', async () => {
    const { id } = valueOf(await start(rowsOf(ROWS)));
    expect(await runImport(world.work, id, { isStopping: () => true })).toBeNull();
    expect((await standsAt(id)).state).toBe('checking');
    expect(await runImport(world.work, id)).toContain('done');
  });

  it('is given up after five runs that broke, and says so', async () => {
    const { id } = valueOf(await start(rowsOf(ROWS)));
    await runImport(world.work, id, { tries: 5 });
    expect(await standsAt(id)).toMatchObject({ state: 'refused', refusal: { code: 'broken' } });
  });

  it('is one at a time for a brand, and asks what a short one asks', async () => {
    expect(codeOf(await start([...rowsOf(ROWS), 'Old,Old row,PL,2020-01-01,x']))).toBe('askPast');
    expect(codeOf(await start([...rowsOf(ROWS), 'Bad,Bad row,PL,2026-02-30,x']))).toBe('badRows');
    const { id } = valueOf(await start(rowsOf(ROWS)));
    expect((await maybeRunningImport(world.work, world.brandId))?.id).toBe(id);
    expect(codeOf(await start(rowsOf(ROWS)))).toBe('importRuns');
  });

  it('is read and stopped by those who may import there, and forgotten in time', async () => {
    const { id } = valueOf(await start(rowsOf(ROWS)));
    await world.db.run('delete from brand_people where person_id = $1', [world.work.actorId]);
    expect([codeOf(await readImport(world.work, id)), codeOf(await stopImport(world.work, id))]).toEqual([
      'notYours',
      'notYours',
    ]);
    await runImport(world.work, id);
    const [row] = await world.db.rows<{ state: string }>('select state from imports');
    expect(row!.state).toBe('refused');
    expect(await forgetImports(world.db, '2027-01-01T00:00:00.000Z')).toBe(1);
    expect(codeOf(await readImport(world.work, id))).toBe('notFound');
  });
});
