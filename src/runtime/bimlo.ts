import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import type { Clock } from '@/core/clock';
import { HOLD_AFTER_MS } from '@/core/delivery/delivery';
import { msBetween } from '@/core/time/plan';
import { clearLooseFiles } from '@/data/clearFiles';
import { openDb, type Db } from '@/data/db';
import { endAllLeases, maybeNextDue } from '@/data/deliveries';
import { noteSetUp, takeFolder, type DataFolder } from '@/data/folder';
import { checkReadable, migrate, pendingMigrations, readMigrations } from '@/data/migrate';
import { outgoingFrom } from '@/data/outgoing';
import { listSnapshots, snapshotIsDue, takeSnapshot } from '@/data/snapshots';
import { listRunningSeries } from '@/data/series';
import { keepAhead } from '@/usecases/series';
import { networkClient } from '@/standins/network/client';
import { clockFrom } from './clock';
import { log } from './log';
import { startWorker, type Worker } from './worker';

/** What runs once per process. */
export interface Bimlo {
  db: Db;
  clock: Clock;
  ids: () => string;
  folder: DataFolder;
  worker: Worker;
  /** Where the made-up networks answer. */
  networkUrl: string;
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

/** The data folder meant: `BIMLO_DATA`, or one beside the program. */
export const dataRoot = (): string => process.env.BIMLO_DATA ?? join(process.cwd(), '.bimlo-data');

/** Opens the database of a folder that was taken, checking that it can be read and bringing its schema up to date (a snapshot is taken before). */
export async function openFolderDb(folder: DataFolder, clock: Clock): Promise<Db> {
  const migrations = await readMigrations();
  const db = await openDb(folder.db);
  const pending = await pendingMigrations(db, migrations);
  const isNew = pending.length === migrations.length;
  if (!isNew) await checkReadable(db);
  if (pending.length > 0 && !isNew) await takeSnapshot(db, folder, clock.now(), '-before-migration');
  await migrate(db, pending);
  if (isNew) await noteSetUp(folder);
  return db;
}

async function open(): Promise<Bimlo> {
  const clock = clockFrom(process.env.BIMLO_NOW);
  const folder = await takeFolder(dataRoot());
  try {
    const db = await openFolderDb(folder, clock);
    // This process alone has the folder, so whoever claimed a delivery is dead.
    const brokenOff = await endAllLeases(db, clock.now());
    const networkUrl = process.env.BIMLO_NETWORK_URL ?? 'http://127.0.0.1:4311';
    const timeoutMs = Number(process.env.BIMLO_SEND_TIMEOUT_MS ?? 10_000);
    const worker = startWorker(
      {
        db,
        clock,
        ids: randomUUID,
        chance: Math.random,
        network: networkClient(networkUrl, timeoutMs),
        readPicture: outgoingFrom(folder.media),
      },
      async () => {
        await keepSnapshots(db, folder, clock);
        await keepSeriesAhead(db, clock);
        await clearFiles(db, folder, clock);
      },
    );
    log.info({ folder: folder.root, brokenOff }, 'data folder open');
    return {
      db,
      clock,
      ids: randomUUID,
      folder,
      worker,
      networkUrl,
      close: async () => {
        await worker.stop();
        await db.close();
        await folder.release();
      },
    };
  } catch (error) {
    await folder.release();
    throw error;
  }
}

/** Takes the day's snapshot when it is due and nothing leaves within a minute. */
async function keepSnapshots(db: Db, folder: DataFolder, clock: Clock): Promise<void> {
  const now = clock.now();
  if (!snapshotIsDue((await listSnapshots(folder)).at(-1), now)) return;
  const nextDue = await maybeNextDue(db);
  const untilDueMs = nextDue ? msBetween(now, nextDue) : Infinity;
  if (untilDueMs < SNAPSHOT_CLEARANCE_MS && untilDueMs > -HOLD_AFTER_MS) return;
  const name = await takeSnapshot(db, folder, now);
  log.info({ name }, 'snapshot taken');
}

const SNAPSHOT_CLEARANCE_MS = 60_000;

/** How often files are looked through, in milliseconds. */
const FILES_EVERY_MS = 6 * 60 * 60_000;
let filesSeenAt: string | null = null;

/** Clears files that no row points to. The first look comes when Bimlo has run for a while. */
async function clearFiles(db: Db, folder: DataFolder, clock: Clock): Promise<void> {
  const now = clock.now();
  filesSeenAt ??= now;
  if (Math.abs(msBetween(filesSeenAt, now)) < FILES_EVERY_MS) return;
  filesSeenAt = now;
  const cleared = await clearLooseFiles(db, folder.media, now);
  if (cleared > 0) log.info({ cleared }, 'files cleared that nothing used');
}

/** How often series are looked at, in milliseconds: they lack a post ahead once a day at most. */
const SERIES_EVERY_MS = 600_000;
let seriesSeenAt: string | null = null;

/** Lets every series make the posts it lacks ahead. */
async function keepSeriesAhead(db: Db, clock: Clock): Promise<void> {
  const now = clock.now();
  if (seriesSeenAt !== null && Math.abs(msBetween(seriesSeenAt, now)) < SERIES_EVERY_MS) return;
  seriesSeenAt = now;
  for (const { id, ownerId } of await listRunningSeries(db))
    await keepAhead({ db, clock, ids: randomUUID, actorId: ownerId }, id);
}
