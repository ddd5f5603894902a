import type { Clock, Ids } from '@/core/clock';
import type { Refusal, Result } from '@/core/refusal';
import type { Db, Queryable } from '@/data/db';
import { writeHistory, type Deed } from '@/data/history';
import { worksForBrand } from '@/data/people';
import type { Instant } from '@/core/time/plan';

/** What every use case is given: where the data is, the time, new ids, and who does it. */
export interface Work {
  db: Db;
  clock: Clock;
  ids: Ids;
  /** The person who does it. */
  actorId: string;
}

/** A use case in its transaction. */
export interface Doing {
  tx: Queryable;
  now: Instant;
  ids: Ids;
  actorId: string;
  /** Writes a line of history for each deed. */
  note(...deeds: Omit<Deed, 'at' | 'actorId'>[]): Promise<void>;
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

/** Runs a use case in one transaction: its value, or its refusal with nothing written. */
export async function doing<T>(work: Work, act: (doing: Doing) => Promise<T>): Promise<Result<T>> {
  const now = work.clock.now();
  try {
    const value = await work.db.transaction((tx) =>
      act({
        tx,
        now,
        ids: work.ids,
        actorId: work.actorId,
        note: (...deeds) =>
          writeHistory(
            tx,
            deeds.map((deed) => ({ ...deed, at: now, actorId: work.actorId })),
          ),
      }),
    );
    return { ok: true, value };
  } catch (error) {
    if (error instanceof Refused) return { ok: false, refusal: error.refusal };
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

/** Refuses people who do not work for the brand. */
export async function mustWorkFor({ tx, actorId }: Doing, brandId: string): Promise<void> {
  if (!(await worksForBrand(tx, actorId, brandId)))
    refused({ code: 'notYours', message: 'This belongs to a brand you do not work for. Switch to somebody who does.' });
}

/** What is not there, or not any more. */
export const notFound = (what: string): Refusal => ({
  code: 'notFound',
  message: `That ${what} is not there (any more). Reload to see what is.`,
});

/** A write that was based on an older state than the present one. */
export const STALE: Refusal = {
  code: 'stale',
  message: 'Somebody changed this meanwhile, so nothing was saved. Compare the two and keep one.',
};

/** Refuses a text longer than Bimlo keeps. `limit` in UTF-16 units. */
export function mustFit(text: string, limit: number, label: string, field: string): void {
  if (text.length <= limit) return;
  const number = new Intl.NumberFormat('en-GB');
  refused({
    code: 'textTooLong',
    field,
    message: `${label}: ${number.format(text.length)} characters are more than Bimlo keeps (${number.format(limit)}). Shorten it.`,
  });
}
