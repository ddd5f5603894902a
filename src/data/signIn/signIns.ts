import type { Actor } from '@/core/rights/may';
import type { Instant } from '@/core/time/plan';
import type { Queryable } from '../database/db';

/** A browser that somebody is signed in with. */
export interface SignIn {
  id: string;
  personId: string;
  begunAt: Instant;
  /** When it was last used, to the hour. */
  lastAt: Instant;
  address: string;
  agent: string;
}

const COLUMNS = `id, person_id as "personId", begun_at as "begunAt", last_at as "lastAt", address, agent`;

/** Adds that somebody signed in. */
export async function insertSignIn(
  tx: Queryable,
  { id, personId, begunAt, address, agent }: Omit<SignIn, 'lastAt'>,
): Promise<void> {
  await tx.run(
    `insert into sign_ins (id, person_id, begun_at, last_at, address, agent) values ($1, $2, $3, $3, $4, $5)`,
    [id, personId, begunAt, address, agent],
  );
}

/** Who is signed in with that, as they are now; not where they were archived, or it was not used since. */
export async function maybeSignedIn(
  db: Queryable,
  id: string,
  usedSince: Instant,
): Promise<{ personId: string; lastAt: Instant; actor: Actor } | undefined> {
  const [row] = await db.rows<{ personId: string; lastAt: Instant } & Actor>(
    `select p.id as "personId", s.last_at as "lastAt", p.role,
       coalesce((select array_agg(b.brand_id::text) from brand_people b where b.person_id = p.id), '{}') as "brandIds"
     from sign_ins s join people p on p.id = s.person_id
     where s.id = $1 and s.last_at >= $2 and p.archived_at is null`,
    [id, usedSince],
  );
  return row && { personId: row.personId, lastAt: row.lastAt, actor: { role: row.role, brandIds: row.brandIds } };
}

/** Notes that a sign-in was used. */
export async function noteUse(db: Queryable, id: string, at: Instant): Promise<void> {
  await db.run('update sign_ins set last_at = $2 where id = $1', [id, at]);
}

/** The sign-ins of somebody that still hold, the last used first. */
export function listSignIns(db: Queryable, personId: string, usedSince: Instant): Promise<SignIn[]> {
  return db.rows<SignIn>(
    `select ${COLUMNS} from sign_ins where person_id = $1 and last_at >= $2 order by last_at desc, id`,
    [personId, usedSince],
  );
}

/** Ends one sign-in. @returns whether there was one */
export async function deleteSignIn(tx: Queryable, id: string): Promise<boolean> {
  return (await tx.run('delete from sign_ins where id = $1', [id])) === 1;
}

/** Ends all sign-ins of somebody, but one where that is named. @returns how many */
export function deleteSignInsOf(tx: Queryable, personId: string, but: string | null = null): Promise<number> {
  return tx.run('delete from sign_ins where person_id = $1 and id is distinct from $2', [personId, but]);
}

/** Ends all sign-ins of everybody. */
export async function deleteAllSignIns(tx: Queryable): Promise<void> {
  await tx.run('delete from sign_ins');
}

/** Forgets sign-ins that no longer hold. @returns how many */
export function forgetSignIns(db: Queryable, unusedSince: Instant): Promise<number> {
  return db.run('delete from sign_ins where last_at < $1', [unusedSince]);
}
