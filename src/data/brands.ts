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
