import type { ImportMapping } from '@/core/exchange/planImport';
import type { Queryable } from '../database/db';

/** The posts that these rows of a file became, by the rows' keys. */
export async function listBroughtIn(
  db: Queryable,
  brandId: string,
  source: string,
  keys: readonly string[],
): Promise<Map<string, string>> {
  const rows = await db.rows<{ key: string; postId: string }>(
    'select row_key as key, post_id as "postId" from brought_in where brand_id = $1 and source = $2 and row_key = any($3::text[])',
    [brandId, source, keys],
  );
  return new Map(rows.map(({ key, postId }) => [key, postId]));
}

/** Notes which post each row became. */
export async function noteBroughtIn(
  tx: Queryable,
  brandId: string,
  source: string,
  rows: readonly { key: string; postId: string }[],
): Promise<void> {
  await tx.run(
    `insert into brought_in (brand_id, source, row_key, post_id)
     select $1, $2, x.key, x."postId" from jsonb_to_recordset($3::jsonb) as x (key text, "postId" uuid)
     on conflict (brand_id, source, row_key) do update set post_id = excluded.post_id`,
    [brandId, source, JSON.stringify(rows)],
  );
}

/** How columns of a file with this header were meant before, if it came before. */
export async function maybeMapping(
  db: Queryable,
  brandId: string,
  header: string,
): Promise<Partial<ImportMapping> | null> {
  const [row] = await db.rows<{ mapping: Partial<ImportMapping> }>(
    'select mapping from import_mappings where brand_id = $1 and header = $2',
    [brandId, header],
  );
  return row?.mapping ?? null;
}

/** Remembers how the columns of a header are meant. */
export async function rememberMapping(
  tx: Queryable,
  brandId: string,
  header: string,
  mapping: Partial<ImportMapping>,
): Promise<void> {
  await tx.run(
    `insert into import_mappings (brand_id, header, mapping) values ($1, $2, $3::jsonb)
     on conflict (brand_id, header) do update set mapping = $3::jsonb`,
    [brandId, header, JSON.stringify(mapping)],
  );
}
