import type { Name, ShelfItem, ShelfWords } from '@/core/shelf/shelf';
import type { Instant } from '@/core/time/plan';
import type { Queryable } from '../database/db';

/** The shelf of a brand by kind and title, with how often each item was used and when last. */
export function listShelf(db: Queryable, brandId: string): Promise<ShelfItem[]> {
  return db.rows<ShelfItem>(
    `select i.id, i.kind, i.title, i.text, i.source, i.fits, i.version, coalesce(u.uses, 0)::int as uses, u.last as "lastUsedAt"
     from shelf_items i
       left join (
         select item_id, count(*) as uses, max(at) as last from shelf_uses
         where item_id in (select id from shelf_items where brand_id = $1) group by item_id
       ) u on u.item_id = i.id
     where i.brand_id = $1 and i.deleted_at is null order by i.kind, lower(i.title), i.id`,
    [brandId],
  );
}

/** Adds items to the shelf. */
export async function insertShelfItems(
  tx: Queryable,
  items: readonly (ShelfWords & { id: string; brandId: string; createdAt: Instant })[],
): Promise<void> {
  await tx.run(
    `insert into shelf_items (id, brand_id, kind, title, text, source, fits, created_at)
     select x.id, x."brandId", x.kind, x.title, x.text, x.source, coalesce(x.fits, '{}'), x."createdAt"
     from jsonb_to_recordset($1::jsonb) as x (id uuid, "brandId" uuid, kind text, title text, text text, source text,
       fits jsonb, "createdAt" timestamptz)`,
    [JSON.stringify(items)],
  );
}

/** Writes an item of a brand's shelf. @returns whether it had the version given */
export async function updateShelfItem(
  tx: Queryable,
  item: ShelfWords & { id: string; brandId: string; version: number },
): Promise<boolean> {
  const changed = await tx.run(
    `update shelf_items set kind = $4, title = $5, text = $6, source = $7, fits = $8::text::jsonb, version = version + 1
     where id = $1 and brand_id = $2 and version = $3 and deleted_at is null`,
    [
      item.id,
      item.brandId,
      item.version,
      item.kind,
      item.title,
      item.text,
      item.source,
      JSON.stringify(item.fits ?? {}),
    ],
  );
  return changed === 1;
}

/** Takes an item from the shelf, or a name from the list, or with null puts it back. @returns whether that changed anything */
export async function updateShelfDeleted(
  tx: Queryable,
  table: 'shelf_items' | 'names',
  brandId: string,
  id: string,
  at: Instant | null,
): Promise<boolean> {
  const changed = await tx.run(
    `update ${table} set deleted_at = $3, version = version + 1
     where id = $1 and brand_id = $2 and (deleted_at is null) = ($3::timestamptz is not null)`,
    [id, brandId, at],
  );
  return changed === 1;
}

/** Whether an item lies on a brand's shelf. */
export async function existsShelfItem(db: Queryable, brandId: string, id: string): Promise<boolean> {
  const rows = await db.rows('select 1 from shelf_items where id = $1 and brand_id = $2 and deleted_at is null', [
    id,
    brandId,
  ]);
  return rows.length > 0;
}

/** Notes that items were put into posts; an item counts once for each post. */
export async function noteShelfUses(
  tx: Queryable,
  uses: readonly { itemId: string; postId: string; at: Instant }[],
): Promise<void> {
  await tx.run(
    `insert into shelf_uses (item_id, post_id, at)
     select x."itemId", x."postId", x.at from jsonb_to_recordset($1::jsonb) as x ("itemId" uuid, "postId" uuid, at timestamptz)
     on conflict (item_id, post_id) do update set at = excluded.at`,
    [JSON.stringify(uses)],
  );
}

/** The people and places a brand names, by name. */
export function listNames(db: Queryable, brandId: string): Promise<Name[]> {
  return db.rows<Name>(
    `select id, kind, name, handles, version from names where brand_id = $1 and deleted_at is null
     order by lower(name), id`,
    [brandId],
  );
}

/** Adds names. */
export async function insertNames(
  tx: Queryable,
  names: readonly (Omit<Name, 'version'> & { brandId: string })[],
): Promise<void> {
  await tx.run(
    `insert into names (id, brand_id, kind, name, handles)
     select x.id, x."brandId", x.kind, x.name, x.handles
     from jsonb_to_recordset($1::jsonb) as x (id uuid, "brandId" uuid, kind text, name text, handles jsonb)`,
    [JSON.stringify(names)],
  );
}

/** Writes a name of a brand. @returns whether it had the version given */
export async function updateName(tx: Queryable, name: Name & { brandId: string }): Promise<boolean> {
  const changed = await tx.run(
    `update names set kind = $4, name = $5, handles = $6::jsonb, version = version + 1
     where id = $1 and brand_id = $2 and version = $3 and deleted_at is null`,
    [name.id, name.brandId, name.version, name.kind, name.name, JSON.stringify(name.handles)],
  );
  return changed === 1;
}
