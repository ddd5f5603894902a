import { USUAL_WEEKDAYS } from '@/core/prep/workdays';
import { WORDS_PER_MINUTE } from '@/core/captions/spoken';
import type { Delivers } from '@/core/delivery/carrier';
import { ENCORE_DAYS } from '@/core/encores/encores';
import type { Zone } from '@/core/time/plan';
import type { Queryable } from '../database/db';

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
  /** How fast its scripts are spoken. */
  wordsPerMinute: number;
  /** Whether its posts are signed off before they are ready. */
  asksSignOff: boolean;
  /** Days after which a published post is old enough to come again. */
  encoreDays: number;
  delivers: Delivers;
  /** Whether its makers schedule and send; null: they do, unless it asks for sign-off. */
  makersSend: boolean | null;
  /** Whether its makers import and export. */
  makersExchange: boolean;
}

const COLUMNS = `id, slug, name, zone, week_start as "weekStart", weekdays, words_per_minute as "wordsPerMinute",
  asks_sign_off as "asksSignOff", encore_days as "encoreDays", delivers,
  makers_send as "makersSend", makers_exchange as "makersExchange"`;

/** All brands in their order. */
export function listBrands(db: Queryable): Promise<Brand[]> {
  return db.rows<Brand>(`select ${COLUMNS} from brands order by position, name`);
}

/** The brands with these ids, in no order. */
export function listBrandsById(db: Queryable, ids: readonly string[]): Promise<Brand[]> {
  return db.rows<Brand>(`select ${COLUMNS} from brands where id = any($1::uuid[])`, [ids]);
}

/** The brand with that slug, if there is one. */
export async function maybeBrandBySlug(db: Queryable, slug: string): Promise<Brand | undefined> {
  // What no short name is made of is asked of nobody: the database would take some of it for an error.
  if (!/^[\w-]+$/.test(slug)) return undefined;
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
export async function updateBrand(tx: Queryable, id: string, fields: Omit<Brand, 'id' | 'slug'>): Promise<void> {
  await tx.run(
    `update brands set name = $2, zone = $3, week_start = $4, weekdays = $5, words_per_minute = $6, asks_sign_off = $7,
       encore_days = $8, delivers = $9, makers_send = $10, makers_exchange = $11
     where id = $1`,
    [
      id,
      fields.name,
      fields.zone,
      fields.weekStart,
      fields.weekdays,
      fields.wordsPerMinute,
      fields.asksSignOff,
      fields.encoreDays,
      fields.delivers,
      fields.makersSend,
      fields.makersExchange,
    ],
  );
}

/** Adds a brand. */
export async function insertBrand(
  tx: Queryable,
  brand: Pick<Brand, 'id' | 'slug' | 'name' | 'zone' | 'weekStart'> & Partial<Brand> & { position: number },
): Promise<void> {
  await tx.run(
    `insert into brands (id, slug, name, zone, week_start, weekdays, position, words_per_minute, asks_sign_off, encore_days,
       delivers, makers_send, makers_exchange)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13)`,
    [
      brand.id,
      brand.slug,
      brand.name,
      brand.zone,
      brand.weekStart,
      brand.weekdays ?? USUAL_WEEKDAYS,
      brand.position,
      brand.wordsPerMinute ?? WORDS_PER_MINUTE.usual,
      brand.asksSignOff ?? false,
      brand.encoreDays ?? ENCORE_DAYS.usual,
      brand.delivers ?? 'byHand',
      brand.makersSend ?? null,
      brand.makersExchange ?? false,
    ],
  );
}
