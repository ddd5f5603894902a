import { randomUUID } from 'node:crypto';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Db } from '@/data/database/db';
import { listOtherBeats } from '@/data/holders/holders';
import { claimJobs, endRun, insertJobs } from '@/data/jobs/jobs';
import { listJobs } from '@/data/jobs/testJobs';
import { openTestDb } from '@/data/database/testDb';
import { startJobs, type JobKind, type JobRunner } from './jobs';

let db: Db;
let now = '2026-11-23T09:00:00.000Z';
let runner: JobRunner | undefined;
beforeEach(async () => {
  db = await openTestDb();
  now = '2026-11-23T09:00:00.000Z';
});
afterEach(async () => {
  await runner?.stop();
  await db.close();
});

const MINUTE = 60_000;
const holder = { id: randomUUID() as string, stopped: () => [] };
const start = async (kinds: Record<string, JobKind>) =>
  (runner = await startJobs({ db, clock: { now: () => now }, ids: randomUUID, holder }, kinds));
/** Another process. */
const other = { id: randomUUID() as string };
const job = async (kind: string) => (await listJobs(db)).find((one) => one.kind === kind)!;

describe('jobs', () => {
  it('run when they are due, and again after their wait', async () => {
    const run = vi.fn(async () => ({ result: 'did it' }));
    const { look } = await start({ tidy: { everyMs: 10 * MINUTE, retryMs: MINUTE, run } });
    await look();
    await look();
    expect(run).toHaveBeenCalledTimes(1);
    expect(await job('tidy')).toMatchObject({ result: 'did it', dueAt: '2026-11-23T09:10:00.000Z', tries: 0 });
    now = '2026-11-23T09:10:00.000Z';
    await look();
    expect(run).toHaveBeenCalledTimes(2);
  });

  it('that fail are tried again, later each time up to four waits, and hold up no other', async () => {
    const other = vi.fn(async () => ({ result: 'ok' }));
    const run = vi.fn().mockRejectedValue(new Error('no room'));
    const { look } = await start({
      bad: { everyMs: 600 * MINUTE, retryMs: MINUTE, run },
      good: { everyMs: MINUTE, retryMs: MINUTE, run: other },
    });
    const waits: number[] = [];
    for (let n = 0; n < 6; n++) {
      await look();
      const { dueAt, result } = await job('bad');
      expect(result).toBe('no room');
      waits.push((Date.parse(dueAt) - Date.parse(now)) / MINUTE);
      now = dueAt;
    }
    expect(waits).toEqual([1, 2, 3, 4, 4, 4]);
    expect(other).toHaveBeenCalledTimes(6);
  });

  it('run once at a time, are taken over from a process that stopped, and ended by who still holds them', async () => {
    const finish: (() => void)[] = [];
    const run = vi.fn(() => new Promise<{ result: string }>((done) => finish.push(() => done({ result: 'late' }))));
    const { look } = await start({ slow: { everyMs: MINUTE, retryMs: MINUTE, run } });
    const looked = look();
    await expect.poll(() => run.mock.calls.length).toBe(1);
    now = '2026-11-24T09:00:00.000Z';
    void look();
    const [{ beat } = { beat: 0 }] = await listOtherBeats(db, other.id);
    const claimAs = (stopped: { id: string; beat: number }[]) => claimJobs(db, now, { id: other.id, stopped }, []);
    expect(await claimAs([])).toEqual([]);
    expect(await claimAs([{ id: holder.id, beat: beat - 1 }])).toEqual([]);
    expect(await claimAs([{ id: holder.id, beat }])).toMatchObject([{ kind: 'slow' }]);
    expect(run).toHaveBeenCalledTimes(1);
    finish.forEach((end) => end());
    await looked;
    expect((await job('slow')).result).toBe('');
    const slow = await job('slow');
    expect(await endRun(db, slow, other.id, { at: now, dueAt: now, tries: 0, result: 'taken over' })).toBe(true);
    expect((await job('slow')).result).toBe('taken over');
  });

  it('of a kind that is called for run once for each subject, side by side, and are gone', async () => {
    const run = vi.fn(async ({ subject }: { subject: string }) => ({ result: subject }));
    const { look } = await start({ read: { retryMs: MINUTE, run } });
    expect(await listJobs(db)).toEqual([]);
    const asked = ['one', 'two'].map((subject) => ({ id: randomUUID(), kind: 'read', subject, dueAt: now }));
    await insertJobs(db, asked);
    await look();
    expect(run.mock.calls.map(([{ subject }]) => subject).sort()).toEqual(['one', 'two']);
    expect(await listJobs(db)).toEqual([]);
  });

  it('that are called for stay when they break, and go on after a restart where they broke off', async () => {
    let end: () => void = () => {};
    const breaking = vi.fn(async () => Promise.reject(new Error('no room')));
    let { look } = await start({ read: { retryMs: MINUTE, run: breaking } });
    await insertJobs(db, [{ id: randomUUID(), kind: 'read', subject: 'one', dueAt: now }]);
    await look();
    expect(await job('read')).toMatchObject({ tries: 1, dueAt: '2026-11-23T09:01:00.000Z' });
    await runner!.stop();

    now = '2026-11-23T09:01:00.000Z';
    const run = vi.fn(async (_job: object, isStopping: () => boolean) => {
      await new Promise<void>((done) => (end = done));
      return isStopping() ? { result: 'broken off', dueAt: now } : { result: 'done' };
    });
    ({ look } = await start({ read: { retryMs: MINUTE, run } }));
    void look();
    await expect.poll(() => run.mock.calls.length).toBe(1);
    const stopped = runner!.stop();
    end();
    await stopped;
    expect(await job('read')).toMatchObject({ result: 'broken off', tries: 0, dueAt: now });

    ({ look } = await start({ read: { retryMs: MINUTE, run } }));
    const looked = look();
    await expect.poll(() => run.mock.calls.length).toBe(2);
    end();
    await looked;
    expect(await listJobs(db)).toEqual([]);
  });

  it('keep their place over a restart, and what was brought forward while they ran', async () => {
    let { look } = await start({
      tidy: { everyMs: 10 * MINUTE, retryMs: MINUTE, run: async () => ({ result: 'once' }) },
    });
    await look();
    await runner!.stop();
    const run = vi.fn(async () => {
      now = '2026-11-23T09:09:00.000Z';
      await runner!.runSoon('tidy');
      return { result: 'twice' };
    });
    ({ look } = await start({ tidy: { everyMs: 10 * MINUTE, retryMs: MINUTE, run } }));
    await look();
    expect(run).not.toHaveBeenCalled();
    now = '2026-11-23T09:10:00.000Z';
    await look();
    expect((await job('tidy')).dueAt).toBe('2026-11-23T09:09:00.000Z');
  });
});
