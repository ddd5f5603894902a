import type { Instant } from '@/core/time/plan';
import type { Queryable } from '../database/db';

/** How often a password was wrong, for a name or from an address. */
interface Wrong {
  subject: string;
  wrong: number;
  lastAt: Instant;
}

/** Counts of these subjects, kept from others until the transaction ends. Those that are not there count nothing. */
export async function lockWrong(tx: Queryable, subjects: readonly string[], now: Instant): Promise<Wrong[]> {
  await tx.run(
    `insert into wrong_passwords (subject, wrong, last_at) select unnest($1::text[]), 0, $2 on conflict do nothing`,
    [subjects, now],
  );
  return tx.rows<Wrong>(
    `select subject, wrong, last_at as "lastAt" from wrong_passwords where subject = any($1::text[])
     order by subject for update`,
    [subjects],
  );
}

/** Keeps the count of a subject. */
export async function saveWrong(tx: Queryable, { subject, wrong, lastAt }: Wrong): Promise<void> {
  await tx.run('update wrong_passwords set wrong = $2, last_at = $3 where subject = $1', [subject, wrong, lastAt]);
}

/** Takes the last try off the count of a subject: it was right. */
export async function takeOffWrong(db: Queryable, subject: string): Promise<void> {
  await db.run('update wrong_passwords set wrong = greatest(wrong - 1, 0) where subject = $1', [subject]);
}

/** Forgets the count of a subject. */
export async function deleteWrong(db: Queryable, subject: string): Promise<void> {
  await db.run('delete from wrong_passwords where subject = $1', [subject]);
}

/** Forgets counts of old. @returns how many */
export function forgetWrong(db: Queryable, before: Instant): Promise<number> {
  return db.run('delete from wrong_passwords where last_at < $1', [before]);
}
