import type { FanOut } from '@/core/fanOut/fanOut';
import type { Queryable } from '../database/db';

/** A fan-out that a brand set. */
export interface OwnFanOut extends FanOut {
  isStanding: boolean;
}

/** The fan-outs that a brand set, by name. */
export function listOwnFanOuts(db: Queryable, brandId: string): Promise<OwnFanOut[]> {
  return db.rows<OwnFanOut>(
    `select slug, name, for_kind as "for", rows, is_standing as "isStanding" from fan_outs where brand_id = $1
     order by name, slug`,
    [brandId],
  );
}

/** Sets a fan-out of a brand. */
export async function saveOwnFanOut(tx: Queryable, brandId: string, fanOut: OwnFanOut): Promise<void> {
  await tx.run(
    `insert into fan_outs (brand_id, slug, name, for_kind, rows, is_standing) values ($1, $2, $3, $4, $5::jsonb, $6)
     on conflict (brand_id, slug) do update set name = excluded.name, for_kind = excluded.for_kind, rows = excluded.rows,
       is_standing = excluded.is_standing`,
    [brandId, fanOut.slug, fanOut.name, fanOut.for, JSON.stringify(fanOut.rows), fanOut.isStanding],
  );
}

/** Takes a fan-out of a brand away. @returns whether it was there */
export async function deleteOwnFanOut(tx: Queryable, brandId: string, slug: string): Promise<boolean> {
  return (await tx.run('delete from fan_outs where brand_id = $1 and slug = $2', [brandId, slug])) === 1;
}
