import type { Instant } from '@/core/time/plan';
import type { Queryable } from '../database/db';

/** A writing service of a team. */
export interface WritingService {
  address: string;
  /** Sent with each request; empty for none. Never leaves the server otherwise. */
  key: string;
}

/** The writing service of a brand, if it has one. */
export async function maybeWritingService(db: Queryable, brandId: string): Promise<WritingService | undefined> {
  return (await db.rows<WritingService>('select address, key from writing_services where brand_id = $1', [brandId]))[0];
}

/** Sets the writing service of a brand. */
export async function saveWritingService(tx: Queryable, brandId: string, service: WritingService): Promise<void> {
  await tx.run(
    `insert into writing_services (brand_id, address, key) values ($1, $2, $3)
     on conflict (brand_id) do update set address = excluded.address, key = excluded.key`,
    [brandId, service.address, service.key],
  );
}

/** Switches the writing service of a brand off, and lets go of what it wrote. */
export async function deleteWritingService(tx: Queryable, brandId: string): Promise<void> {
  await tx.run('delete from writing_services where brand_id = $1', [brandId]);
  await tx.run('delete from written_texts where brand_id = $1', [brandId]);
}

/** What a service wrote, by the keys that are asked for. */
export async function listWrittenTexts(
  db: Queryable,
  brandId: string,
  keys: readonly string[],
): Promise<Map<string, string[]>> {
  const rows = await db.rows<{ key: string; texts: string[] }>(
    'select key, texts from written_texts where brand_id = $1 and key = any($2::text[])',
    [brandId, keys],
  );
  return new Map(rows.map(({ key, texts }) => [key, texts]));
}

/** Keeps what a service wrote, instead of what it wrote for the same before. */
export async function keepWrittenTexts(
  tx: Queryable,
  brandId: string,
  written: readonly { key: string; texts: readonly string[] }[],
  at: Instant,
): Promise<void> {
  if (written.length === 0) return;
  await tx.run(
    `insert into written_texts (brand_id, key, texts, written_at)
     select $1, x.key, x.texts, $3 from jsonb_to_recordset($2::jsonb) as x (key text, texts jsonb)
     on conflict (brand_id, key) do update set texts = excluded.texts, written_at = excluded.written_at`,
    [brandId, JSON.stringify(written), at],
  );
}
