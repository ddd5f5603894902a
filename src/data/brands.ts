import { USUAL_WEEKDAYS } from '@/core/prep/workdays';
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
  /** Weekdays its work is counted in where no person does it, 1 for Monday to 7 for Sunday. */
  weekdays: number[];
}

const COLUMNS = 'id, slug, name, zone, week_start as "weekStart", weekdays';

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
  fields: Pick<Brand, 'name' | 'zone' | 'weekStart' | 'weekdays'>,
): Promise<void> {
  await tx.run('update brands set name = $2, zone = $3, week_start = $4, weekdays = $5 where id = $1', [
    id,
    fields.name,
    fields.zone,
    fields.weekStart,
    fields.weekdays,
  ]);
}

/** Adds a brand. */
export async function insertBrand(
  tx: Queryable,
  brand: Omit<Brand, 'weekdays'> & Partial<Pick<Brand, 'weekdays'>> & { position: number },
): Promise<void> {
  await tx.run(
    'insert into brands (id, slug, name, zone, week_start, weekdays, position) values ($1, $2, $3, $4, $5, $6, $7)',
    [brand.id, brand.slug, brand.name, brand.zone, brand.weekStart, brand.weekdays ?? USUAL_WEEKDAYS, brand.position],
  );
}
