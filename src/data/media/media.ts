import type { Card } from '@/core/cards/card';
import type { Recipe, Rendered } from '@/core/media/fit';
import type { Instant } from '@/core/time/plan';
import type { Queryable } from '../database/db';

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
  /** What it came to when it was made ready as it would leave now; absent or null while it was not. */
  rendered?: Rendered | null;
  /** How it is set, of a picture made from words; absent or null for any other. */
  card?: Card | null;
}

/** The columns of a picture. */
export const COLUMNS = `id, post_id as "postId", position, sha256, mime, width, height, bytes, file_name as "fileName", alt, duration_ms as "durationMs", crop, card,
  to_mime as "toMime", to_bytes as "toBytes",
  (select jsonb_build_object('mime', r.mime, 'width', r.width, 'height', r.height, 'bytes', r.bytes)
    from renditions r where r.sha256 = media.sha256 and r.recipe = media.recipe) as rendered`;

/** The pictures of a post in their order. */
export function listPictures(db: Queryable, postId: string): Promise<Picture[]> {
  return db.rows<Picture>(`select ${COLUMNS} from media where post_id = $1 order by position, id`, [postId]);
}

/** The pictures of posts, each post's in their order. */
export function listPicturesOf(db: Queryable, postIds: readonly string[]): Promise<Picture[]> {
  return db.rows<Picture>(
    `select ${COLUMNS} from media where post_id = any($1::uuid[]) order by post_id, position, id`,
    [postIds],
  );
}

/** Adds pictures. */
export async function insertPictures(
  tx: Queryable,
  pictures: readonly (Omit<Picture, keyof Recipe | 'durationMs'> &
    Partial<Recipe & Pick<Picture, 'durationMs' | 'card'>> & { brandId: string; addedAt: Instant })[],
): Promise<void> {
  if (pictures.length === 0) return;
  await tx.run(
    `insert into media (id, brand_id, post_id, position, sha256, mime, width, height, bytes, file_name, alt, added_at,
       crop, to_mime, to_bytes, duration_ms, card)
     select x.id, x."brandId", x."postId", x.position, x.sha256, x.mime, x.width, x.height, x.bytes, x."fileName", x.alt,
       x."addedAt", nullif(x.crop, 'null'), x."toMime", x."toBytes", x."durationMs", nullif(x.card, 'null')
     from jsonb_to_recordset($1::jsonb) as x (id uuid, "brandId" uuid, "postId" uuid, position int, sha256 text,
       mime text, width int, height int, bytes bigint, "fileName" text, alt text, "addedAt" timestamptz,
       crop jsonb, "toMime" text, "toBytes" bigint, "durationMs" int, card jsonb)`,
    [JSON.stringify(pictures)],
  );
}

/** Writes the place, alt texts and recipes of pictures. */
export async function updatePictures(
  tx: Queryable,
  pictures: readonly (Pick<Picture, 'id' | 'postId' | 'position' | 'alt'> & Recipe)[],
): Promise<void> {
  if (pictures.length === 0) return;
  await tx.run(
    `update media m set position = x.position, alt = x.alt, crop = nullif(x.crop, 'null'), to_mime = x."toMime", to_bytes = x."toBytes"
     from jsonb_to_recordset($1::jsonb) as x (id uuid, "postId" uuid, position int, alt text, crop jsonb, "toMime" text,
       "toBytes" bigint)
     where m.id = x.id and m.post_id = x."postId" and m.id = any($2::uuid[])`,
    [JSON.stringify(pictures), pictures.map(({ id }) => id)],
  );
}

/** Takes pictures from their posts; the files stay. */
export async function deletePictures(tx: Queryable, ids: readonly string[]): Promise<void> {
  if (ids.length > 0) await tx.run('delete from media where id = any($1::uuid[])', [ids]);
}

/** The media type of a stored file, if a post, a piece, a library or a brand sheet of a brand that the person works for holds it. */
export async function maybeMimeFor(
  db: Queryable,
  sha256: string,
  personId: string,
): Promise<{ mime: string; fileName: string } | undefined> {
  return (
    await db.rows<{ mime: string; fileName: string }>(
      `with mine as (select brand_id from brand_people where person_id = $2)
       select mime, file_name as "fileName" from media where sha256 = $1 and brand_id in (select brand_id from mine)
       union all select mime, file_name from library_files where sha256 = $1 and brand_id in (select brand_id from mine)
       union all select mime, file_name from piece_media where sha256 = $1 and brand_id in (select brand_id from mine)
       union all select mime, file_name from brand_assets where sha256 = $1 and brand_id in (select brand_id from mine)
       limit 1`,
      [sha256, personId],
    )
  )[0];
}

/** The first picture of each of these posts: its content hash by the post's id. */
export async function firstPictures(db: Queryable, postIds: readonly string[]): Promise<Map<string, string>> {
  const rows = await db.rows<{ postId: string; sha256: string }>(
    `select x.id as "postId", m.sha256 from unnest($1::uuid[]) as x (id)
     cross join lateral (select sha256 from media where post_id = x.id and mime like 'image/%'
       order by position, id limit 1) m`,
    [postIds],
  );
  return new Map(rows.map(({ postId, sha256 }) => [postId, sha256]));
}

/** Those of these posts that have a card which takes its words from them. */
export async function listWithFollowingCards(db: Queryable, postIds: readonly string[]): Promise<string[]> {
  const rows = await db.rows<{ id: string }>(
    `select distinct post_id as id from media where post_id = any($1::uuid[]) and card ->> 'follows' is not null`,
    [postIds],
  );
  return rows.map(({ id }) => id);
}
