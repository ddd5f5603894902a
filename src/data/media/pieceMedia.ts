import type { Instant } from '@/core/time/plan';
import type { Queryable } from '../database/db';

/** A picture of a piece, or its recording. */
export interface PieceMedium {
  id: string;
  pieceId: string;
  position: number;
  sha256: string;
  mime: string;
  /** Pixels; 0 for a sound. */
  width: number;
  height: number;
  /** Null for a picture. */
  durationMs: number | null;
  bytes: number;
  fileName: string;
  alt: string;
}

const COLUMNS = `id, piece_id as "pieceId", position, sha256, mime, width, height, duration_ms as "durationMs", bytes,
  file_name as "fileName", alt`;

/** The media of a piece in their order. */
export function listPieceMedia(db: Queryable, pieceId: string): Promise<PieceMedium[]> {
  return db.rows<PieceMedium>(`select ${COLUMNS} from piece_media where piece_id = $1 order by position, id`, [
    pieceId,
  ]);
}

/** Adds a medium at the end. */
export async function insertPieceMedium(
  tx: Queryable,
  medium: Omit<PieceMedium, 'position'> & { brandId: string; addedAt: Instant },
): Promise<void> {
  await tx.run(
    `insert into piece_media (id, brand_id, piece_id, position, sha256, mime, width, height, duration_ms, bytes, file_name, alt, added_at)
     select $1, $2, $3, coalesce(max(position), 0) + 1, $4, $5, $6, $7, $8, $9, $10, $11, $12 from piece_media where piece_id = $3`,
    [
      medium.id,
      medium.brandId,
      medium.pieceId,
      medium.sha256,
      medium.mime,
      medium.width,
      medium.height,
      medium.durationMs,
      medium.bytes,
      medium.fileName,
      medium.alt,
      medium.addedAt,
    ],
  );
}

/** Writes the place and the alt text of media. */
export async function updatePieceMedia(
  tx: Queryable,
  media: readonly Pick<PieceMedium, 'id' | 'position' | 'alt'>[],
): Promise<void> {
  await tx.run(
    `update piece_media m set position = x.position, alt = x.alt
     from jsonb_to_recordset($1::jsonb) as x (id uuid, position int, alt text) where m.id = x.id`,
    [JSON.stringify(media.map(({ id, position, alt }) => ({ id, position, alt })))],
  );
}

/** Takes a medium from its piece; its file goes when nothing else points to it. */
export async function deletePieceMedium(tx: Queryable, id: string): Promise<void> {
  await tx.run('delete from piece_media where id = $1', [id]);
}
