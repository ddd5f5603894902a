import type { Instant } from '@/core/time/plan';
import type { Queryable } from '../database/db';

/** Somebody who may be signing in. */
export interface Candidate {
  personId: string;
  name: string;
  slug: string;
  /** Null where they have no password. */
  passwordHash: string | null;
}

/**
 * Whom a name that was typed may mean: the person with that short name, or else the first with that name.
 *
 * @param slug the typed name as a short name; empty where nothing of it is left
 */
export async function maybeCandidate(db: Queryable, name: string, slug: string): Promise<Candidate | undefined> {
  return (
    await db.rows<Candidate>(
      `select p.id as "personId", p.name, p.slug, c.password_hash as "passwordHash"
       from people p left join credentials c on c.person_id = p.id
       where p.archived_at is null and (p.slug = $2 or lower(p.name) = lower($1))
       order by p.slug = $2 desc, p.position, p.slug limit 1`,
      [name, slug],
    )
  )[0];
}

/** The kept password of somebody; null where they have none. */
export async function maybePasswordHash(db: Queryable, personId: string): Promise<string | null> {
  const [row] = await db.rows<{ hash: string }>('select password_hash as hash from credentials where person_id = $1', [
    personId,
  ]);
  return row?.hash ?? null;
}

/** Keeps somebody's password, in the place of the one before. */
export async function savePasswordHash(tx: Queryable, personId: string, hash: string, at: Instant): Promise<void> {
  await tx.run(
    `insert into credentials (person_id, password_hash, set_at) values ($1, $2, $3)
     on conflict (person_id) do update set password_hash = $2, set_at = $3`,
    [personId, hash, at],
  );
}

/** Whether anybody has a password. */
export async function existsPassword(db: Queryable): Promise<boolean> {
  return (await db.rows('select 1 from credentials limit 1')).length > 0;
}

/** Which of these people have a password, and since when. */
export async function listPasswordsSet(db: Queryable, personIds: readonly string[]): Promise<Map<string, Instant>> {
  const rows = await db.rows<{ personId: string; setAt: Instant }>(
    'select person_id as "personId", set_at as "setAt" from credentials where person_id = any($1::uuid[])',
    [personIds],
  );
  return new Map(rows.map(({ personId, setAt }) => [personId, setAt]));
}

/**
 * The person who alone uses a house where nobody has a password and nobody is invited: its first manager. Undefined as soon as
 * anybody has one, or is.
 */
export async function maybeAlone(db: Queryable, now: Instant): Promise<string | undefined> {
  const [row] = await db.rows<{ id: string }>(
    `select id from people
     where role = 'manager' and archived_at is null
       and not exists (select 1 from credentials) and not exists (select 1 from entry_links where expires_at > $1)
     order by position, id limit 1`,
    [now],
  );
  return row?.id;
}
