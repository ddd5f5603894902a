import { rm } from 'node:fs/promises';
import { join } from 'node:path';
import { HOLD_AFTER_MS } from '@/core/delivery/delivery';
import { addMs, msBetween } from '@/core/time/plan';
import { forgetAnswered } from '@/data/database/answeredWrites';
import { clearLooseFiles } from '@/data/media/clearFiles';
import type { Db } from '@/data/database/db';
import { maybeNextDue } from '@/data/delivery/deliveries';
import type { DataFolder } from '@/data/folder/folder';
import { listKeptContents, listWholeSnapshots, snapshotDueAt, takeSnapshot } from '@/data/folder/snapshots';
import { gatherStatistics } from '@/data/database/statistics';
import { bringForward } from '@/data/jobs/jobs';
import { forgetImports } from '@/data/exchange/imports';
import { askUnsure } from '@/usecases/delivery/askNetworks';
import type { DeliveryWork } from '@/usecases/delivery/deliver';
import { SETTLE_CORRECTIONS_JOB, settleCorrections } from '@/usecases/corrections/settleCorrections';
import { DRAW_UP_JOB, drawUpStanding } from '@/usecases/proposals/drawUp';
import { IMPORT_JOB, runImport } from '@/usecases/exchange/longImport';
import { keepAllAhead } from '@/usecases/repeats/makeAhead';
import { sendMails, type Mailer } from '@/usecases/notices/mail';
import { tellPeople } from '@/usecases/notices/tell';
import { forgetOldSignIns } from '@/usecases/signIn/forget';
import type { JobKind } from './jobs';
import { log } from './log';
import { baseUrl, mailerOf } from './mailer';

const MINUTE_MS = 60_000;
const HOUR_MS = 60 * MINUTE_MS;
const DAY_MS = 24 * HOUR_MS;
/** Nothing that holds up the database is begun when a departure is nearer than this. */
const CLEARANCE_MS = MINUTE_MS;

/** How late somebody may be told at most of what is due by hand. */
const TELL_EVERY_MS = 10_000;

/** How long it is known what a write was answered: browsers keep a change until they reach Bimlo again. */
const ANSWERED_KEPT_MS = 14 * DAY_MS;

/** What Bimlo does by itself beside delivering. */
type Housekeeping =
  | 'forgetAnswered'
  | 'forgetSignIns'
  | 'askUnsure'
  | 'tellPeople'
  | 'mail'
  | 'keepRepeatsAhead'
  | 'snapshot'
  | 'clearFiles'
  | 'statistics'
  | typeof IMPORT_JOB
  | typeof DRAW_UP_JOB
  | typeof SETTLE_CORRECTIONS_JOB;

/** The kinds of jobs of one process with its data folder. */
export const housekeeping = (
  work: DeliveryWork & { folder: DataFolder },
  mailer: Mailer = mailerOf(work.folder, work.clock),
): Record<Housekeeping, JobKind> => ({
  askUnsure: {
    everyMs: MINUTE_MS,
    retryMs: MINUTE_MS,
    run: async () => ({ result: `asked about ${await askUnsure(work)}` }),
  },
  tellPeople: {
    everyMs: TELL_EVERY_MS,
    retryMs: MINUTE_MS,
    run: async () => ({ result: `told of ${await tellPeople(work)}` }),
  },
  mail: {
    everyMs: TELL_EVERY_MS,
    retryMs: MINUTE_MS,
    run: async () => ({ result: `mailed ${await sendMails(work, mailer, baseUrl())}` }),
  },
  keepRepeatsAhead: {
    everyMs: 10 * MINUTE_MS,
    retryMs: 10 * MINUTE_MS,
    run: async () => {
      const { db, clock, ids } = work;
      const { made, failed } = await keepAllAhead({ db, clock, ids }, (err, id) =>
        log.error({ err, repeat: id }, 'a repeat could not make its posts'),
      );
      return { result: `made ${made}${failed > 0 ? `, ${failed} repeats could not` : ''}` };
    },
  },
  snapshot: { everyMs: HOUR_MS, retryMs: HOUR_MS, run: () => takeDueSnapshot(work.db, work.folder, work.clock.now()) },
  forgetAnswered: {
    everyMs: HOUR_MS,
    retryMs: HOUR_MS,
    run: async () => {
      const before = addMs(work.clock.now(), -ANSWERED_KEPT_MS);
      const forgotten = (await forgetAnswered(work.db, before)) + (await forgetImports(work.db, before));
      return { result: `forgot ${forgotten}` };
    },
  },
  forgetSignIns: {
    everyMs: HOUR_MS,
    retryMs: HOUR_MS,
    run: async () => ({ result: `forgot ${await forgetOldSignIns(work)}` }),
  },
  [IMPORT_JOB]: {
    retryMs: MINUTE_MS,
    run: async ({ subject, tries }, isStopping) => {
      const result = await runImport(work, subject, { tries, isStopping });
      if (result === null) return { result: 'broken off', dueAt: work.clock.now() };
      await bringForward(work.db, 'statistics', work.clock.now());
      return { result };
    },
  },
  [DRAW_UP_JOB]: {
    everyMs: MINUTE_MS,
    retryMs: 5 * MINUTE_MS,
    run: async (_job, isStopping) => ({ result: `drew up ${await drawUpStanding(work, isStopping)}` }),
  },
  [SETTLE_CORRECTIONS_JOB]: {
    everyMs: MINUTE_MS,
    retryMs: 5 * MINUTE_MS,
    run: async (_job, isStopping) => ({ result: `settled ${await settleCorrections(work, isStopping)}` }),
  },
  clearFiles: {
    everyMs: 6 * HOUR_MS,
    retryMs: HOUR_MS,
    firstMs: 6 * HOUR_MS,
    run: async () => {
      const { db, folder, clock } = work;
      const cleared = await clearLooseFiles(db, folder.media, clock.now(), await listKeptContents(folder));
      return { result: `cleared ${cleared}` };
    },
  },
  statistics: {
    everyMs: DAY_MS,
    retryMs: HOUR_MS,
    firstMs: 10 * MINUTE_MS,
    run: async () => {
      const now = work.clock.now();
      if (await isDepartureNear(work.db, now)) return waits(now);
      await gatherStatistics(work.db);
      return { result: 'gathered' };
    },
  },
});

/** Whether something leaves within a minute, or is late and may still go: then nothing is begun that holds up the database. */
async function isDepartureNear(db: Db, now: string): Promise<boolean> {
  const nextDue = await maybeNextDue(db);
  const untilDueMs = nextDue ? msBetween(now, nextDue) : Infinity;
  return untilDueMs < CLEARANCE_MS && untilDueMs > -HOLD_AFTER_MS;
}

const waits = (now: string) => ({ result: 'waits for a departure', dueAt: addMs(now, MINUTE_MS) });

/** Takes the day's snapshot when it is due and nothing leaves within a minute. One that breaks off leaves nothing behind. */
async function takeDueSnapshot(db: Db, folder: DataFolder, now: string): Promise<{ result: string; dueAt?: string }> {
  const dueAt = snapshotDueAt(await listWholeSnapshots(folder), now);
  if (dueAt > now) return { result: 'not due yet', dueAt };
  if (await isDepartureNear(db, now)) return waits(now);
  try {
    return { result: await takeSnapshot(db, folder, now) };
  } catch (error) {
    await rm(join(folder.snapshots, 'unfinished'), { recursive: true, force: true });
    throw error;
  }
}
