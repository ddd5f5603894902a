import type { Queryable } from '../database/db';

/** A kept set of filters, facts and arrangement of the calendar. */
export interface SavedView {
  id: string;
  brandId: string;
  ownerId: string;
  name: string;
  /** For all who work for the brand, not its owner alone. */
  shared: boolean;
  /** The calendar's address after the question mark. */
  address: string;
}

/** The saved views of a brand that a person sees: their own and the shared, by name. At most 100. */
export function listSavedViews(db: Queryable, brandId: string, personId: string): Promise<SavedView[]> {
  return db.rows<SavedView>(
    `select id, brand_id as "brandId", owner_id as "ownerId", name, shared, address from saved_views
     where brand_id = $1 and (shared or owner_id = $2) order by name, id limit 100`,
    [brandId, personId],
  );
}

/** Keeps a saved view; one of the same name and owner is replaced. */
export async function writeSavedView(tx: Queryable, savedView: SavedView): Promise<void> {
  await tx.run(
    `insert into saved_views (id, brand_id, owner_id, name, shared, address) values ($1, $2, $3, $4, $5, $6)
     on conflict on constraint saved_views_name_unique do update set shared = $5, address = $6`,
    [savedView.id, savedView.brandId, savedView.ownerId, savedView.name, savedView.shared, savedView.address],
  );
}

/** The saved view of that name and owner, if there is one. */
export async function maybeSavedViewId(
  tx: Queryable,
  { brandId, ownerId, name }: Pick<SavedView, 'brandId' | 'ownerId' | 'name'>,
): Promise<string | undefined> {
  const [row] = await tx.rows<{ id: string }>(
    'select id from saved_views where brand_id = $1 and owner_id = $2 and name = $3',
    [brandId, ownerId, name],
  );
  return row?.id;
}

/** The brand and name of a saved view of its owner, if there is one. */
export async function maybeSavedView(
  tx: Queryable,
  id: string,
  ownerId: string,
): Promise<Pick<SavedView, 'brandId' | 'name'> | undefined> {
  const rows = await tx.rows<Pick<SavedView, 'brandId' | 'name'>>(
    'select brand_id as "brandId", name from saved_views where id = $1 and owner_id = $2',
    [id, ownerId],
  );
  return rows[0];
}

/** Forgets a saved view of its owner. */
export async function deleteSavedView(tx: Queryable, id: string, ownerId: string): Promise<void> {
  await tx.run('delete from saved_views where id = $1 and owner_id = $2', [id, ownerId]);
}
