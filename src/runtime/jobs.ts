import { addMs, type Instant } from '@/core/time/plan';
import type { Clock, Ids } from '@/core/clock';
import type { Db } from '@/data/database/db';
import type { Holder } from '@/usecases/delivery/deliver';
import { bringForward, claimJobs, deleteJob, endRun, insertJobs, resetJobs, type Job } from '@/data/jobs/jobs';
import { log } from './log';

/** What a kind of job does, and how often. */
export interface JobKind {
  /** How long after a run the next one comes, in milliseconds. Without, it runs once for each subject that asks for it. */
  everyMs?: number;
  /** How long after a run that failed it is tried again, in milliseconds, times the tries in a row up to four. */
  retryMs: number;
  /** How long after the start the first run comes, in milliseconds. */
  firstMs?: number;
  /**
   * @param isStopping whether the process is about to end: what is long breaks off where it can go on later, and is due then
   * @returns what it came to, in a few words, and when it is due next where that is not after `everyMs`
   */
  run(job: Pick<Job, 'subject' | 'tries'>, isStopping: () => boolean): Promise<{ result: string; dueAt?: Instant }>;
}

/** The loop that runs jobs, beside the one that delivers. */
export interface JobRunner {
  /** Starts what is due. Resolves when all that runs has ended. */
  look(): Promise<void>;
  /** Lets a kind run at once. */
  runSoon(kind: string): Promise<void>;
  /** Ends the loop when what runs has ended. */
  stop(): Promise<void>;
}

/** How often it looks for due jobs, in milliseconds. */
const LOOK_EVERY_MS = 2_000;
/** Tries after which the wait before the next no longer grows. */
const GROWS_UNTIL = 4;

/** Makes the table hold each kind once, and starts the loop. Each job runs by itself, so that a long one holds up no other. */
export async function startJobs(
  { db, clock, ids, holder }: { db: Db; clock: Clock; ids: Ids; holder: Holder },
  kinds: Readonly<Record<string, JobKind>>,
): Promise<JobRunner> {
  const now = clock.now();
  await resetJobs(db, now, Math.max(...Object.values(kinds).map(({ everyMs = 0 }) => everyMs)));
  await insertJobs(
    db,
    Object.entries(kinds).flatMap(([kind, { everyMs, firstMs = 0 }]) =>
      everyMs === undefined ? [] : [{ id: ids(), kind, subject: '', dueAt: addMs(now, firstMs) }],
    ),
  );
  const running = new Map<string, Promise<void>>();
  let stopped = false;

  async function runOne(job: Job): Promise<void> {
    const kind = kinds[job.kind];
    if (!kind) return;
    let end: { result: string; dueAt: Instant; tries: number };
    try {
      const { result, dueAt } = await kind.run(job, () => stopped);
      if (dueAt === undefined && kind.everyMs === undefined) {
        log.info({ kind: job.kind, subject: job.subject, result }, 'a job ended');
        return void (await deleteJob(db, job.id, holder.id));
      }
      end = { result, dueAt: dueAt ?? addMs(clock.now(), kind.everyMs!), tries: 0 };
    } catch (error) {
      log.error({ err: error, kind: job.kind }, 'a job failed');
      const tries = job.tries + 1;
      const waitMs = kind.retryMs * Math.min(tries, GROWS_UNTIL);
      end = {
        result: error instanceof Error ? error.message : String(error),
        dueAt: addMs(clock.now(), waitMs),
        tries,
      };
    }
    await endRun(db, job, holder.id, { at: clock.now(), ...end });
  }

  async function look(): Promise<void> {
    if (stopped) return;
    const claimant = { id: holder.id, stopped: holder.stopped() };
    for (const job of await db.transaction((tx) => claimJobs(tx, clock.now(), claimant, [...running.keys()]))) {
      const run = runOne(job)
        .catch((error: unknown) => log.error({ err: error, kind: job.kind }, 'what a job came to could not be written'))
        .finally(() => running.delete(job.id));
      running.set(job.id, run);
    }
    await Promise.all(running.values());
  }

  const lookAndLog = () => look().catch((error: unknown) => log.error({ err: error }, 'jobs could not be looked for'));
  const timer = setInterval(() => void lookAndLog(), LOOK_EVERY_MS);
  timer.unref();
  return {
    look,
    runSoon: async (kind) => {
      await bringForward(db, kind, clock.now());
      void lookAndLog();
    },
    stop: async () => {
      stopped = true;
      clearInterval(timer);
      await Promise.all(running.values());
    },
  };
}
