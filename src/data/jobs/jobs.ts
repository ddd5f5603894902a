import { addMs, type Instant } from '@/core/time/plan';
import type { Queryable } from '../database/db';
import { beatOnce, heldByNobodyElse, stoppedOf, type Claimant } from '../holders/holders';

/** Something that runs by itself when its time has come. */
export interface Job {
  id: string;
  kind: string;
  /** What it is about; empty where the kind says it all. */
  subject: string;
  dueAt: Instant;
  /** Runs in a row that failed. */
  tries: number;
  /** What the last run came to, or why it failed. */
  result: string;
  lastRunAt: Instant | null;
}

/** @internal */
export const COLUMNS = 'j.id, j.kind, j.subject, j.due_at as "dueAt", j.tries, j.result, j.last_run_at as "lastRunAt"';

/** Adds jobs that are not there yet. */
export async function insertJobs(
  tx: Queryable,
  jobs: readonly Pick<Job, 'id' | 'kind' | 'subject' | 'dueAt'>[],
): Promise<void> {
  await tx.run(
    `insert into jobs (id, kind, subject, due_at)
     select x.id, x.kind, x.subject, x."dueAt"
     from jsonb_to_recordset($1::jsonb) as x (id uuid, kind text, subject text, "dueAt" timestamptz)
     on conflict (kind, subject) do nothing`,
    [JSON.stringify(jobs)],
  );
}

/** Lets a kind of job run at that instant at the latest. */
export async function bringForward(tx: Queryable, kind: string, dueAt: Instant): Promise<void> {
  await tx.run('update jobs set due_at = least(due_at, $2) where kind = $1', [kind, dueAt]);
}

/**
 * Claims jobs that are due and that nobody runs: one that another process ran is taken over when that one is gone or has stopped.
 *
 * @param running ids of those that this process runs
 */
export async function claimJobs(
  tx: Queryable,
  now: Instant,
  claimant: Claimant,
  running: readonly string[],
): Promise<Job[]> {
  const claimed = await tx.rows<Job>(
    `with due as (
       select j.id from jobs j where j.due_at <= $1 and j.id <> all ($3::uuid[])
         and (j.holder_id = $2 or ${heldByNobodyElse('j.holder_id', '$4', '$5')})
       for update skip locked
     )
     update jobs j set holder_id = $2 from due where j.id = due.id returning ${COLUMNS}`,
    [now, claimant.id, running, ...stoppedOf(claimant)],
  );
  if (claimed.length > 0) await beatOnce(tx, claimant.id);
  return claimed;
}

/**
 * Writes what a run came to, and when the job is due next. One that was brought forward while it ran stays so.
 *
 * @returns whether this process still held it; otherwise nothing was written
 */
export async function endRun(
  tx: Queryable,
  job: Pick<Job, 'id' | 'dueAt'>,
  holderId: string,
  end: { at: Instant; dueAt: Instant; tries: number; result: string },
): Promise<boolean> {
  const changed = await tx.run(
    `update jobs set holder_id = null, last_run_at = $2, tries = $4, result = left($5, 500),
       due_at = case when due_at = $6 then $3::timestamptz else least(due_at, $3::timestamptz) end
     where id = $1 and holder_id = $7`,
    [job.id, end.at, end.dueAt, end.tries, end.result, job.dueAt, holderId],
  );
  return changed === 1;
}

/** Takes a job away that need not run again. @returns whether this process still held it */
export async function deleteJob(tx: Queryable, id: string, holderId: string): Promise<boolean> {
  return (await tx.run('delete from jobs where id = $1 and holder_id = $2', [id, holderId])) === 1;
}

/** Lets nothing wait longer than its kind does, after a clock that ran ahead. */
export async function resetJobs(tx: Queryable, now: Instant, longestWaitMs: number): Promise<void> {
  await tx.run('update jobs set due_at = least(due_at, $1)', [addMs(now, longestWaitMs)]);
}
