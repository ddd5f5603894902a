import type { Recipe } from '@/core/media/fit';
import type { Instant } from '@/core/time/plan';
import type { Queryable } from './db';

/** A picture of a post. */
export interface Picture extends Recipe {
  id: string;
  postId: string;
  position: number;
  /** SHA-256 of the file's bytes, hex; names the file. */
  sha256: string;
  mime: string;
  /** In pixels, after the orientation the file asks for. */
  width: number;
  height: number;
  /** How long a video runs; null for a picture. */
  durationMs: number | null;
  bytes: number;
  fileName: string;
  alt: string;
}

const COLUMNS = `id, post_id as "postId", position, sha256, mime, width, height, bytes, file_name as "fileName", alt, duration_ms as "durationMs", crop,
  to_mime as "toMime", to_bytes as "toBytes"`;

/** The pictures of a post in their order. */
export function listPictures(db: Queryable, postId: string): Promise<Picture[]> {
  return db.rows<Picture>(`select ${COLUMNS} from media where post_id = $1 order by position, id`, [postId]);
}

/** Adds pictures. */
export async function insertPictures(
  tx: Queryable,
  pictures: readonly (Omit<Picture, keyof Recipe | 'durationMs'> &
    Partial<Recipe & Pick<Picture, 'durationMs'>> & { brandId: string; addedAt: Instant })[],
): Promise<void> {
  await tx.run(
    `insert into media (id, brand_id, post_id, position, sha256, mime, width, height, bytes, file_name, alt, added_at,
       crop, to_mime, to_bytes, duration_ms)
     select x.id, x."brandId", x."postId", x.position, x.sha256, x.mime, x.width, x.height, x.bytes, x."fileName", x.alt,
       x."addedAt", x.crop, x."toMime", x."toBytes", x."durationMs"
     from jsonb_to_recordset($1::jsonb) as x (id uuid, "brandId" uuid, "postId" uuid, position int, sha256 text,
       mime text, width int, height int, bytes bigint, "fileName" text, alt text, "addedAt" timestamptz,
       crop jsonb, "toMime" text, "toBytes" bigint, "durationMs" int)`,
    [JSON.stringify(pictures)],
  );
}

/** Writes a picture's alt text. @returns whether the post has that picture. */
export async function updateAlt(tx: Queryable, postId: string, pictureId: string, alt: string): Promise<boolean> {
  return (await tx.run('update media set alt = $3 where id = $2 and post_id = $1', [postId, pictureId, alt])) === 1;
}

/** Writes what is done to a picture on its way out. @returns whether the post has that picture */
export async function updateRecipe(
  tx: Queryable,
  postId: string,
  pictureId: string,
  { crop, toMime, toBytes }: Recipe,
): Promise<boolean> {
  const changed = await tx.run(
    'update media set crop = $3::jsonb, to_mime = $4, to_bytes = $5 where id = $2 and post_id = $1',
    [postId, pictureId, crop && JSON.stringify(crop), toMime, toBytes],
  );
  return changed === 1;
}

/** Takes a picture from a post; its file stays. @returns the picture, if the post had it. */
export async function deletePicture(tx: Queryable, postId: string, pictureId: string): Promise<Picture | undefined> {
  return (
    await tx.rows<Picture>(`delete from media where id = $2 and post_id = $1 returning ${COLUMNS}`, [postId, pictureId])
  )[0];
}

/** The media type of a stored file, if a post, a library or a brand sheet holds it. */
export async function maybeMimeOf(
  db: Queryable,
  sha256: string,
): Promise<{ mime: string; fileName: string } | undefined> {
  return (
    await db.rows<{ mime: string; fileName: string }>(
      `select mime, file_name as "fileName" from media where sha256 = $1
       union all select mime, file_name from library_files where sha256 = $1
       union all select mime, file_name from brand_assets where sha256 = $1 limit 1`,
      [sha256],
    )
  )[0];
}

/** Gives a post the same pictures as another, with their alt texts. The files are shared. */
export async function copyPictures(tx: Queryable, fromPostId: string, toPostId: string, at: Instant): Promise<void> {
  await tx.run(
    `insert into media (id, brand_id, post_id, position, sha256, mime, width, height, bytes, file_name, alt, added_at, crop,
       to_mime, to_bytes, duration_ms)
     select gen_random_uuid(), brand_id, $2, position, sha256, mime, width, height, bytes, file_name, alt, $3, crop, to_mime,
       to_bytes, duration_ms
     from media where post_id = $1`,
    [fromPostId, toPostId, at],
  );
}
