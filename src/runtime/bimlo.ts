import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import type { Clock } from '@/core/clock';
import { openDb, type Db } from '@/data/database/db';
import { forgetHolders } from '@/data/holders/holders';
import { noteSetUp, takeFolder, type DataFolder } from '@/data/folder/folder';
import { checkReadable, migrate, pendingMigrations, readMigrations } from '@/data/database/migrate';
import { lacksRoom, troubleOf } from '@/data/database/diskFull';
import { measurePictures } from '@/data/media/renditions';
import { endNative, keepWarm } from '@/data/native/children';
import { closePool, warmPool } from '@/data/pool/pool';
import { gatherStatistics } from '@/data/database/statistics';
import { keepingIn, outgoingFrom } from '@/data/media/outgoing';
import { networkClient } from '@/standins/network/client';
import { adoptSnapshots, takeSnapshot } from '@/data/folder/snapshots';
import { syncTree } from '@/data/folder/synced';
import type { Network } from '@/core/delivery/network';
import type { Work } from '@/usecases/useCase';
import { startAsking } from './asking';
import { clockFrom } from './clock';
import { startHeartbeat } from './heartbeat';
import { housekeeping } from './housekeeping';
import { letAccountsBeAsked } from '@/usecases/delivery/askAccounts';
import { settleReadings } from '@/usecases/extracts/settleReadings';
import { noteRestored } from '@/usecases/delivery/restores';
import { startJobs, type JobRunner } from './jobs';
import { log } from './log';
import { lookAtRun } from './runs';
import { startWorker, type Worker } from './worker';

/** What runs once per process. */
export interface Bimlo {
  db: Db;
  clock: Clock;
  ids: () => string;
  folder: DataFolder;
  worker: Worker;
  jobs: JobRunner;
  /** Why nothing can be delivered at present, as a sentence; null while all is well. */
  trouble(): Promise<string | null>;
  /** The networks that posts are sent to. */
  network: Network;
  /** Where the made-up networks answer. */
  networkUrl: string;
  /** Makes the pictures of posts ready as they would leave, and keeps their measures; gives the contents whose files are lost. */
  measurePictures?: Work['measurePictures'];
  close(): Promise<void>;
}

// Next gives instrumentation, pages and route handlers a copy of each module of their own, so what must exist once stands here.
const PLACE = Symbol.for('bimlo');
const shared = globalThis as { [PLACE]?: Promise<Bimlo> };

/** The one Bimlo of this process, opened at the first call. A failed opening is tried anew at the next call. */
export function bimlo(): Promise<Bimlo> {
  return (shared[PLACE] ??= open().catch((error: unknown) => {
    delete shared[PLACE];
    throw error;
  }));
}

/** Closes the Bimlo of this process, if it is open: the next call of `bimlo` opens it anew. */
export async function closeBimlo(): Promise<void> {
  const present = shared[PLACE];
  delete shared[PLACE];
  await (await present)?.close();
}

/** The data folder meant: `BIMLO_DATA`, or one beside the program. */
export const dataRoot = (): string => process.env.BIMLO_DATA ?? join(process.cwd(), '.bimlo-data');

/** Opens the database of a folder that was taken, checking that it can be read and bringing its schema up to date (a snapshot is taken before). */
export async function openFolderDb(folder: DataFolder, clock: Clock, onDeath?: (why: Error) => void): Promise<Db> {
  const migrations = await readMigrations();
  const db = await openDb(folder.db, undefined, onDeath);
  const pending = await pendingMigrations(db, migrations);
  const isNew = pending.length === migrations.length;
  if (!isNew) await checkReadable(db);
  if (pending.length > 0 && !isNew) {
    await adoptSnapshots(folder);
    await takeSnapshot(db, folder, clock.now(), '-before-migration');
  }
  await migrate(db, pending);
  if (!isNew) await settleReadings(db);
  if (pending.length > 0) await gatherStatistics(db);
  if (isNew) {
    await db.script('checkpoint');
    await syncTree(folder.db);
    await noteSetUp(folder);
  }
  return db;
}

/** How long after a start the thread and the process for people's files are started that stay warm, in milliseconds. */
const WARM_AFTER_MS = 15_000;

/** Without its database nothing can be answered or sent, so that whoever keeps Bimlo running has to see that it is gone. */
function endWithDatabase(why: Error): void {
  log.fatal({ err: why }, 'the database has ended, so Bimlo ends: start it again');
  console.error(`The database has ended (${why.message}), so Bimlo ends. Start it again.`);
  process.exit(1);
}

async function open(): Promise<Bimlo> {
  const clock = clockFrom(process.env.BIMLO_NOW);
  const folder = await takeFolder(dataRoot());
  try {
    const db = await openFolderDb(folder, clock, endWithDatabase);
    // This process alone has the folder, so whoever held a delivery or ran a job is dead.
    await forgetHolders(db);
    const heartbeat = await startHeartbeat(db, randomUUID());
    const run = await lookAtRun(db, folder, clock);
    const networkUrl = process.env.BIMLO_NETWORK_URL ?? 'http://127.0.0.1:4311';
    const timeoutMs = Number(process.env.BIMLO_SEND_TIMEOUT_MS ?? 10_000);
    const network = networkClient(networkUrl, timeoutMs, run.house);
    const work = {
      db,
      clock,
      ids: randomUUID,
      chance: Math.random,
      network,
      readPicture: outgoingFrom(folder.media),
      keepPicture: keepingIn(folder.media, network),
      holder: heartbeat,
    };
    if (run.signs.length > 0) {
      log.warn({ signs: run.signs, lastSeen: run.lastSeen }, 'this folder was restored: what waits is kept back');
      await noteRestored(work, run.signs, run.lastSeen);
    }
    await letAccountsBeAsked(work, run.lastSeen ?? clock.now());
    await run.begin();
    let trouble: string | null = null;
    const asking = startAsking(work, run.lastSeen);
    const worker = startWorker(work, (error) => (trouble = error === null ? null : troubleOf(error)), asking.first);
    void asking.first.then(() => worker.look());
    const jobs = await startJobs(work, housekeeping({ ...work, folder }));
    // What serves the first visitor goes before what waits for files.
    const warming = setTimeout(() => {
      keepWarm();
      warmPool();
    }, WARM_AFTER_MS);
    warming.unref();
    log.info({ folder: folder.root }, 'data folder open');
    return {
      db,
      clock,
      ids: randomUUID,
      folder,
      worker,
      jobs,
      trouble: async () => trouble ?? (await lacksRoom(folder.root)),
      network,
      networkUrl,
      measurePictures: (postIds) => measurePictures(db, folder.media, postIds),
      close: async () => {
        await worker.stop();
        await jobs.stop();
        asking.stop();
        heartbeat.stop();
        clearTimeout(warming);
        endNative();
        await closePool();
        await run.stop();
        await db.close();
        await folder.release();
      },
    };
  } catch (error) {
    await folder.release();
    throw error;
  }
}
