import { addMs, type Instant } from '@/core/time/plan';
import type { Queryable } from '../database/db';

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

const COLUMNS = 'j.id, j.kind, j.subject, j.due_at as "dueAt", j.tries, j.result, j.last_run_at as "lastRunAt"';

/** How long a run may take before another takes it up, in milliseconds. */
const JOB_LEASE_MS = 30 * 60_000;

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

/** Claims jobs that are due and that nobody runs. @param busy ids of those that this process runs already, however long their claim is over */
export function claimJobs(tx: Queryable, now: Instant, busy: readonly string[]): Promise<Job[]> {
  return tx.rows<Job>(
    `with due as (
       select id from jobs where due_at <= $1 and (lease_until is null or lease_until <= $1)
         and id <> all ($3::uuid[]) for update skip locked
     )
     update jobs j set lease_until = $2 from due where j.id = due.id returning ${COLUMNS}`,
    [now, addMs(now, JOB_LEASE_MS), busy],
  );
}

/** Writes what a run came to, and when the job is due next. One that was brought forward while it ran stays so. */
export async function endRun(
  tx: Queryable,
  job: Pick<Job, 'id' | 'dueAt'>,
  end: { at: Instant; dueAt: Instant; tries: number; result: string },
): Promise<void> {
  await tx.run(
    `update jobs set lease_until = null, last_run_at = $2, tries = $4, result = left($5, 500),
       due_at = case when due_at = $6 then $3::timestamptz else least(due_at, $3::timestamptz) end
     where id = $1`,
    [job.id, end.at, end.dueAt, end.tries, end.result, job.dueAt],
  );
}

/** Takes a job away that need not run again. */
export async function deleteJob(tx: Queryable, id: string): Promise<void> {
  await tx.run('delete from jobs where id = $1', [id]);
}

/** Ends all claims, and lets nothing wait longer than its kind does. Only when a database is opened that no other process can have open. */
export async function resetJobs(tx: Queryable, now: Instant, longestWaitMs: number): Promise<void> {
  await tx.run('update jobs set lease_until = null, due_at = least(due_at, $1)', [addMs(now, longestWaitMs)]);
}

/** All jobs, as they stand. */
export function listJobs(db: Queryable): Promise<Job[]> {
  return db.rows<Job>(`select ${COLUMNS} from jobs j order by j.kind, j.subject`);
}
