import type { AuditKind } from '@/core/signIn/audit';
import type { Instant } from '@/core/time/plan';
import type { Queryable } from '../database/db';

/** A line of the audit list. */
interface AuditLine {
  at: Instant;
  kind: AuditKind;
  /** Who did it; null where nobody is known. */
  actorId: string | null;
  /** Whom it was done to. */
  personId: string | null;
  brandId: string | null;
  /** From where, where that is known. */
  address: string | null;
  /** Further words, as they are shown. */
  detail: string | null;
}

const NOBODY = { actorId: null, personId: null, brandId: null, address: null, detail: null };

/** Writes lines of the audit list. */
export async function writeAudit(
  tx: Queryable,
  ...lines: (Pick<AuditLine, 'at' | 'kind'> & Partial<AuditLine>)[]
): Promise<void> {
  for (const line of lines) {
    const { at, kind, actorId, personId, brandId, address, detail } = { ...NOBODY, ...line };
    await tx.run(
      `insert into audit (at, kind, actor_id, person_id, brand_id, address, detail) values ($1, $2, $3, $4, $5, $6, $7)`,
      [at, kind, actorId, personId, brandId, address, detail],
    );
  }
}

/** A line with the names of whom it is about. */
type NamedAuditLine = AuditLine & {
  id: string;
  actorName: string | null;
  personName: string | null;
  brandName: string | null;
};

/**
 * The last lines that somebody who works for these brands may see, the latest first: of these brands, of people who work for one of them, and
 * those of nobody that is known.
 *
 * @param before only lines older than the one with this number; null for the latest
 */
export function listAudit(
  db: Queryable,
  brandIds: readonly string[],
  limit: number,
  before: string | null,
): Promise<NamedAuditLine[]> {
  return db.rows(
    `with seen as (select distinct person_id from brand_people where brand_id = any($1::uuid[]))
     select a.id::text as id, a.at, a.kind, a.actor_id as "actorId", a.person_id as "personId", a.brand_id as "brandId", a.address,
       a.detail, w.name as "actorName", p.name as "personName", b.name as "brandName"
     from audit a left join people w on w.id = a.actor_id left join people p on p.id = a.person_id
       left join brands b on b.id = a.brand_id
     where ($3::bigint is null or a.id < $3::bigint)
       and case when a.brand_id is not null then a.brand_id = any($1::uuid[])
                else coalesce(a.person_id, a.actor_id) is null
                  or coalesce(a.person_id, a.actor_id) in (select person_id from seen) end
     order by a.id desc limit $2`,
    [brandIds, limit, before],
  );
}

/** Forgets lines of old. @returns how many */
export function forgetAudit(db: Queryable, before: Instant): Promise<number> {
  return db.run('delete from audit where at < $1', [before]);
}
