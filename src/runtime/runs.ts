import { randomUUID } from 'node:crypto';
import { signsOf, type Sign } from '@/core/folder/restored';
import type { Clock } from '@/core/clock';
import type { Instant } from '@/core/time/plan';
import type { Db } from '@/data/database/db';
import { maybeFact, setFact } from '@/data/folder/facts';
import type { DataFolder } from '@/data/folder/folder';
import { leaveMark, readMarks, readPosition } from '@/data/folder/marks';
import { isSaidRestored, forgetSaidRestored } from '@/data/folder/snapshots';
import { log } from './log';

/** How often a run leaves its mark, in milliseconds. */
const MARK_EVERY_MS = 2 * 60_000;

/** The facts of a folder that runs keep. */
const FACTS = { run: 'run', house: 'house', lastSeen: 'last-seen' } as const;

/** A run of Bimlo on a data folder. */
interface Run {
  /** By what the folder is seen to be older than what ran last on it. */
  signs: Sign[];
  /** Which house's posts these are: stays with the data, wherever it is copied. */
  house: string;
  /** The last instant that the folder knew of when it was opened; null where it never ran. */
  lastSeen: Instant | null;
  /** Counts this start, once what the signs ask for is written down, and leaves its mark from now on. */
  begin(): Promise<void>;
  /** Leaves the mark at once. */
  mark(): Promise<void>;
  /** Leaves the last mark. */
  stop(): Promise<void>;
}

/** Looks at a folder that was opened: whether it is what ran last, and whose posts it holds. */
export async function lookAtRun(db: Db, folder: DataFolder, clock: Clock): Promise<Run> {
  const before = await maybeFact(db, FACTS.run);
  const lastRun = before === undefined ? null : Number(before);
  const signs = signsOf({
    db: { run: lastRun, position: await readPosition(db) },
    marks: await readMarks(folder),
    isSaid: isSaidRestored(folder),
  });
  const house = (await maybeFact(db, FACTS.house)) ?? randomUUID();
  const lastSeen = (await maybeFact(db, FACTS.lastSeen)) ?? null;
  const run = (lastRun ?? 0) + 1;
  let beat = 0;
  let timer: NodeJS.Timeout | undefined;

  async function mark(): Promise<void> {
    await setFact(db, FACTS.lastSeen, clock.now());
    await leaveMark(folder, { run, beat: ++beat, position: await readPosition(db), atMs: Date.now() });
  }
  return {
    ...{ signs, house, lastSeen, mark },
    begin: async () => {
      await db.transaction(async (tx) => {
        await setFact(tx, FACTS.run, String(run));
        await setFact(tx, FACTS.house, house);
      });
      await mark();
      await forgetSaidRestored(folder);
      timer = setInterval(() => {
        mark().catch((error: unknown) => log.error({ err: error }, 'the mark of this run could not be left'));
      }, MARK_EVERY_MS);
      timer.unref();
    },
    stop: async () => {
      clearInterval(timer);
      await mark();
    },
  };
}
