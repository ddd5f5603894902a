import type { AssetKind } from '@/core/shelf/shelf';
import type { Queryable } from '../database/db';

/** Something of a brand sheet: a colour or font by its value, a logo, portrait or font file by its content. */
export interface BrandAsset {
  id: string;
  kind: AssetKind;
  name: string;
  value: string;
  /** Content hash of its file; null without one. */
  sha256: string | null;
  mime: string | null;
  bytes: number | null;
  fileName: string | null;
}

/** A brand's sheet in its order. */
export function listBrandAssets(db: Queryable, brandId: string): Promise<BrandAsset[]> {
  return db.rows<BrandAsset>(
    `select id, kind, name, value, sha256, mime, bytes, file_name as "fileName" from brand_assets
     where brand_id = $1 order by kind, position, name`,
    [brandId],
  );
}

/** Adds something at the end of a brand's sheet. */
export async function insertBrandAsset(tx: Queryable, asset: BrandAsset & { brandId: string }): Promise<void> {
  await tx.run(
    `insert into brand_assets (id, brand_id, kind, name, value, sha256, mime, bytes, file_name, position)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, (select count(*) from brand_assets where brand_id = $2))`,
    [
      asset.id,
      asset.brandId,
      asset.kind,
      asset.name,
      asset.value,
      asset.sha256,
      asset.mime,
      asset.bytes,
      asset.fileName,
    ],
  );
}

/** Takes something from a brand's sheet. @returns it, if it was there */
export async function deleteBrandAsset(tx: Queryable, brandId: string, id: string): Promise<BrandAsset | undefined> {
  return (
    await tx.rows<BrandAsset>(
      `delete from brand_assets where id = $1 and brand_id = $2
       returning id, kind, name, value, sha256, mime, bytes, file_name as "fileName"`,
      [id, brandId],
    )
  )[0];
}
