import type { Zone } from '@/core/time/plan';
import type { Queryable } from './db';

/** Whom posts are for. */
export interface Brand {
  id: string;
  slug: string;
  name: string;
  zone: Zone;
  /** 1 for Monday to 7 for Sunday. */
  weekStart: number;
}

const COLUMNS = 'id, slug, name, zone, week_start as "weekStart"';

/** All brands in their order. */
export function listBrands(db: Queryable): Promise<Brand[]> {
  return db.rows<Brand>(`select ${COLUMNS} from brands order by position, name`);
}

/** The brand with that slug, if there is one. */
export async function maybeBrandBySlug(db: Queryable, slug: string): Promise<Brand | undefined> {
  return (await db.rows<Brand>(`select ${COLUMNS} from brands where slug = $1`, [slug]))[0];
}

/** The brand with that id. @throws when there is none: ids of brands come from rows that refer to them. */
export async function oneBrand(db: Queryable, id: string): Promise<Brand> {
  const brand = (await db.rows<Brand>(`select ${COLUMNS} from brands where id = $1`, [id]))[0];
  if (!brand) throw new Error(`no brand ${id}`);
  return brand;
}

/** The brand with that id, if there is one. */
export async function maybeBrandById(db: Queryable, id: string): Promise<Brand | undefined> {
  return (await db.rows<Brand>(`select ${COLUMNS} from brands where id = $1`, [id]))[0];
}

/** Whether a brand has that slug. */
export async function existsBrandSlug(db: Queryable, slug: string): Promise<boolean> {
  return (await db.rows('select 1 from brands where slug = $1', [slug])).length > 0;
}

/** Writes what can be set of a brand. */
export async function updateBrand(
  tx: Queryable,
  id: string,
  fields: Pick<Brand, 'name' | 'zone' | 'weekStart'>,
): Promise<void> {
  await tx.run('update brands set name = $2, zone = $3, week_start = $4 where id = $1', [
    id,
    fields.name,
    fields.zone,
    fields.weekStart,
  ]);
}

/** Adds a brand. */
export async function insertBrand(tx: Queryable, brand: Brand & { position: number }): Promise<void> {
  await tx.run('insert into brands (id, slug, name, zone, week_start, position) values ($1, $2, $3, $4, $5, $6)', [
    brand.id,
    brand.slug,
    brand.name,
    brand.zone,
    brand.weekStart,
    brand.position,
  ]);
}
