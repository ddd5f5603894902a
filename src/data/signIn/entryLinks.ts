import type { Instant } from '@/core/time/plan';
import type { Queryable } from '../database/db';

/** What a link into the house is for: a first password, or another in the place of a forgotten one. */
export type LinkPurpose = 'invitation' | 'password';

/** A link by which somebody sets their password, once. */
interface EntryLink {
  id: string;
  personId: string;
  purpose: LinkPurpose;
  madeAt: Instant;
  expiresAt: Instant;
}

/** Adds a link for somebody, in the place of the one before. */
export async function saveEntryLink(
  tx: Queryable,
  link: EntryLink & { keyHash: Buffer; madeBy: string },
): Promise<void> {
  await deleteEntryLinksOf(tx, link.personId);
  await tx.run(
    `insert into entry_links (id, key_hash, person_id, purpose, made_by, made_at, expires_at)
     values ($1, $2, $3, $4, $5, $6, $7)`,
    [link.id, link.keyHash, link.personId, link.purpose, link.madeBy, link.madeAt, link.expiresAt],
  );
}

/** The link with that key and whom it lets in, where it still holds and they still work here. */
export async function maybeEntryLink(
  db: Queryable,
  keyHash: Buffer,
  now: Instant,
): Promise<(EntryLink & { name: string; slug: string }) | undefined> {
  return (
    await db.rows<EntryLink & { name: string; slug: string }>(
      `select l.id, l.person_id as "personId", l.purpose, l.made_at as "madeAt", l.expires_at as "expiresAt",
         p.name, p.slug
       from entry_links l join people p on p.id = l.person_id
       where l.key_hash = $1 and l.expires_at > $2 and p.archived_at is null`,
      [keyHash, now],
    )
  )[0];
}

/** Uses a link up. @returns whether it was there: of two who come at once, one finds it so */
export async function deleteEntryLink(tx: Queryable, id: string): Promise<boolean> {
  return (await tx.run('delete from entry_links where id = $1', [id])) === 1;
}

/** Takes back the links of somebody. */
export async function deleteEntryLinksOf(tx: Queryable, personId: string): Promise<void> {
  await tx.run('delete from entry_links where person_id = $1', [personId]);
}

/** Takes back the links of everybody. */
export async function deleteAllEntryLinks(tx: Queryable): Promise<void> {
  await tx.run('delete from entry_links');
}

/** The links of these people that still hold. */
export function listEntryLinks(
  db: Queryable,
  personIds: readonly string[],
  now: Instant,
): Promise<Pick<EntryLink, 'personId' | 'purpose' | 'expiresAt'>[]> {
  return db.rows(
    `select person_id as "personId", purpose, expires_at as "expiresAt" from entry_links
     where person_id = any($1::uuid[]) and expires_at > $2`,
    [personIds, now],
  );
}

/** Forgets links that no longer hold. @returns how many */
export function forgetEntryLinks(db: Queryable, now: Instant): Promise<number> {
  return db.run('delete from entry_links where expires_at <= $1', [now]);
}
