import type { Instant } from '@/core/time/plan';
import type { Queryable } from '../database/db';
import { instantText } from '../database/manyRows';

/** That nothing of a brand is sent at present. */
export interface BrandHold {
  reason: string;
  since: Instant;
  personId: string;
}

/** The hold of a brand, if there is one. */
export async function maybeBrandHold(db: Queryable, brandId: string): Promise<BrandHold | undefined> {
  const [hold] = await db.rows<BrandHold>(
    `select reason, ${instantText('since')} as since, person_id as "personId" from brand_holds where brand_id = $1`,
    [brandId],
  );
  return hold;
}

/** Holds all of a brand. @returns whether it was not on hold before */
export async function insertBrandHold(tx: Queryable, brandId: string, hold: BrandHold): Promise<boolean> {
  const made = await tx.run(
    'insert into brand_holds (brand_id, reason, since, person_id) values ($1, $2, $3, $4) on conflict do nothing',
    [brandId, hold.reason, hold.since, hold.personId],
  );
  return made > 0;
}

/** Lets go of all of a brand. @returns whether it was on hold */
export async function deleteBrandHold(tx: Queryable, brandId: string): Promise<boolean> {
  return (await tx.run('delete from brand_holds where brand_id = $1', [brandId])) > 0;
}

/** SQL: a delivery whose brand is on hold. @param delivery the name that deliveries go by */
export const isBrandHeld = (delivery: string): string =>
  `exists (select 1 from brand_holds h where h.brand_id = ${delivery}.brand_id)`;
