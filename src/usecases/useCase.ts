import type { Clock, Ids } from '@/core/clock';
import { refuse, type Refusal, type Result } from '@/core/refusal';
import type { Db, Queryable } from '@/data/database/db';
import { maybeAnswered, noteAnswered } from '@/data/database/answeredWrites';
import { DISK_FULL, isDiskFull } from '@/data/database/diskFull';
import { writeHistory, type Deed } from '@/data/posts/history';
import { tooLong } from '@/core/posts/readPost';
import type { Instant } from '@/core/time/plan';

export type { Db } from '@/data/database/db';
export { DISK_FULL, isDiskFull } from '@/data/database/diskFull';

/** What every use case is given: where the data is, the time, new ids, and who does it. */
export interface Work {
  db: Db;
  clock: Clock;
  ids: Ids;
  /** The person who does it. */
  actorId: string;
  /** The version of the setting it changes, as its sender saw it; a setting that is there is not changed without. */
  seen?: number;
  /**
   * Makes the pictures of posts ready as they would leave, so that they are checked by that; absent where no files are. Gives the
   * contents whose files are lost.
   */
  measurePictures?: (postIds: readonly string[]) => Promise<ReadonlySet<string>>;
  /** By what its sender knows this request; a request that is sent again has the same and is answered as the first was. */
  request?: { key: string; /** Writes of it so far. */ parts: number };
}

/** A transaction in which a person, or with null Bimlo itself, does something. */
export interface Acting {
  tx: Queryable;
  now: Instant;
  ids: Ids;
  actorId: string | null;
  /** Whether what is to leave has to have been made ready before, to be checked by what it came to. */
  isMeasured: boolean;
  /** Contents of pictures and videos whose files were found to be lost. */
  lost: ReadonlySet<string>;
  /** Writes a line of history for each deed. */
  note(...deeds: Omit<Deed, 'at' | 'actorId'>[]): Promise<void>;
}

/** A use case in its transaction: somebody does it. */
export interface Doing extends Acting {
  actorId: string;
  seen: Work['seen'];
}

/** Carries a refusal out of a transaction, which is rolled back by it. */
class Refused extends Error {
  constructor(readonly refusal: Refusal) {
    super(refusal.message);
  }
}

/** Ends a use case with a refusal. */
export function refused(refusal: Refusal): never {
  throw new Refused(refusal);
}

/** The value of a result, or the end of the use case with its refusal. */
export function must<T>(result: Result<T>): T {
  return result.ok ? result.value : refused(result.refusal);
}

const NOTHING_LOST: ReadonlySet<string> = new Set();

/** What a transaction is acted in with. */
export function acting<A extends string | null>(
  tx: Queryable,
  { clock, ids, measurePictures }: Pick<Work, 'clock' | 'ids' | 'measurePictures'>,
  actorId: A,
): Acting & { actorId: A } {
  const now = clock.now();
  return {
    tx,
    now,
    ids,
    actorId,
    isMeasured: measurePictures !== undefined,
    lost: NOTHING_LOST,
    note: async (...deeds) => {
      if (deeds.length === 0) return;
      await writeHistory(
        tx,
        deeds.map((deed) => ({ ...deed, at: now, actorId })),
      );
    },
  };
}

/** The same write was answered before. Its transaction is rolled back by this. */
class AnsweredBefore extends Error {}

/**
 * Runs a use case in one transaction: its value, or its refusal with nothing written. A write that its sender sends again
 * is done once, and answered as it was the first time; its value has to survive JSON for that.
 */
export async function doing<T>(
  work: Work,
  act: (doing: Doing) => Promise<T>,
  /** Posts whose pictures are made ready before, since they may be scheduled by it. */
  toMeasure: readonly string[] = [],
): Promise<Result<T>> {
  const write = work.request && { actorId: work.actorId, key: work.request.key, part: work.request.parts++ };
  try {
    if (write) {
      const before = await maybeAnswered(work.db, write);
      if (before) return { ok: true, value: before.value as T };
    }
    const lost = (toMeasure.length > 0 && (await work.measurePictures?.(toMeasure))) || NOTHING_LOST;
    const value = await work.db.transaction(async (tx) => {
      const own = { ...acting(tx, work, work.actorId), lost, seen: work.seen };
      const done = await act(own);
      if (write && !(await noteAnswered(tx, write, done, own.now))) throw new AnsweredBefore();
      return done;
    });
    return { ok: true, value };
  } catch (error) {
    if (error instanceof AnsweredBefore) return { ok: true, value: (await maybeAnswered(work.db, write!))!.value as T };
    if (error instanceof Refused) return { ok: false, refusal: error.refusal };
    if (isDiskFull(error)) return refuse('diskFull', `${DISK_FULL}, then try again: nothing was saved.`);
    throw error;
  }
}

/**
 * Runs a part of a use case whose refusal shall not end the whole: its value, or its refusal. The part has to refuse before
 * it writes, since what it wrote stays.
 */
export async function attempt<T>(part: () => Promise<T>): Promise<Result<T>> {
  try {
    return { ok: true, value: await part() };
  } catch (error) {
    if (error instanceof Refused) return { ok: false, refusal: error.refusal };
    throw error;
  }
}

/** Something of a brand that whoever asks does not work for. */
export const NOT_YOURS: Refusal = {
  code: 'notYours',
  message: 'This belongs to a brand you do not work for.',
};

/** What is not there, or not any more. */
export const notFound = (what: string): Refusal => ({
  code: 'notFound',
  message: `That ${what} is not there (any more). Reload to see what is.`,
});

/** A write that was based on an older state than the present one. */
export const STALE: Refusal = {
  code: 'stale',
  message: 'Somebody else changed this while you were editing, so nothing was saved. Compare the two and keep one.',
};

/** Refuses a text longer than Bimlo keeps. `limit` in UTF-16 units. */
export function mustFit(text: string, limit: number, label: string, field: string): void {
  const long = tooLong(text, limit, label, field);
  if (long) must(long);
}
