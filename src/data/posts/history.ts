import type { Instant } from '@/core/time/plan';
import type { Queryable } from '../database/db';

/** Something that was done. */
export interface Deed {
  brandId: string;
  at: Instant;
  /** Null where Bimlo did it. */
  actorId: string | null;
  subject: 'piece' | 'post' | 'media' | 'delivery' | 'channel' | 'brand' | 'repeat' | 'rule sheet';
  subjectId: string;
  deed: string;
  detail?: object;
}

/** Writes down what was done. */
export async function writeHistory(tx: Queryable, deeds: readonly Deed[]): Promise<void> {
  await tx.run(
    `insert into history (brand_id, at, actor_id, subject, subject_id, deed, detail)
     select x."brandId", x.at, x."actorId", x.subject, x."subjectId", x.deed, coalesce(x.detail, '{}')
     from jsonb_to_recordset($1::jsonb) as x ("brandId" uuid, at timestamptz, "actorId" uuid, subject text,
       "subjectId" uuid, deed text, detail jsonb)`,
    [JSON.stringify(deeds)],
  );
}

/** Whether a person has done anything yet. */
export async function existsDeedOfPerson(db: Queryable): Promise<boolean> {
  return (await db.rows('select 1 from history where actor_id is not null limit 1')).length > 0;
}
