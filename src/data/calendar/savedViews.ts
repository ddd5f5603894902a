import type { Queryable } from '../database/db';

/** A kept set of filters, facts and arrangement of the calendar. */
export interface Reading {
  id: string;
  brandId: string;
  ownerId: string;
  name: string;
  /** For all who work for the brand, not its owner alone. */
  shared: boolean;
  /** The calendar's address after the question mark. */
  address: string;
}

/** The readings of a brand that a person sees: their own and the shared, by name. At most 100. */
export function listReadings(db: Queryable, brandId: string, personId: string): Promise<Reading[]> {
  return db.rows<Reading>(
    `select id, brand_id as "brandId", owner_id as "ownerId", name, shared, address from readings
     where brand_id = $1 and (shared or owner_id = $2) order by name, id limit 100`,
    [brandId, personId],
  );
}

/** Keeps a reading; one of the same name and owner is replaced. */
export async function saveReading(tx: Queryable, reading: Reading): Promise<void> {
  await tx.run(
    `insert into readings (id, brand_id, owner_id, name, shared, address) values ($1, $2, $3, $4, $5, $6)
     on conflict on constraint readings_name_unique do update set shared = $5, address = $6`,
    [reading.id, reading.brandId, reading.ownerId, reading.name, reading.shared, reading.address],
  );
}

/** Forgets a reading of its owner. @returns whether there was one */
export async function deleteReading(tx: Queryable, id: string, ownerId: string): Promise<boolean> {
  return (await tx.run('delete from readings where id = $1 and owner_id = $2', [id, ownerId])) === 1;
}
