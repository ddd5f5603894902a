import { isVideo } from '@/core/media/video';
import { AS_IT_IS, type Rendered } from '@/core/media/fit';
import type { Db, Queryable } from '../database/db';
import { NativeFailedError } from '../native/children';
import { hasFile, LostFileError } from './mediaPaths';
import { measureRendered } from './renderPicture';
import type { Picture } from './media';

/** A picture that was never made ready as it would leave now, and under which name what it comes to is kept. */
type Unrendered = Pick<Picture, 'sha256' | 'mime' | 'crop' | 'toMime' | 'toBytes' | 'fileName' | 'bytes'> & {
  recipe: string;
};

function listUnrendered(db: Queryable, postIds: readonly string[]): Promise<Unrendered[]> {
  return db.rows<Unrendered>(
    `select distinct on (m.sha256, m.recipe) m.sha256, m.mime, m.crop, m.to_mime as "toMime", m.to_bytes as "toBytes",
       m.file_name as "fileName", m.bytes, m.recipe
     from media m where m.post_id = any($1::uuid[])
       and not exists (select 1 from renditions r where r.sha256 = m.sha256 and r.recipe = m.recipe)`,
    [postIds],
  );
}

/**
 * Keeps what pictures came to.
 *
 * @internal
 */
export async function insertRenditions(
  tx: Queryable,
  renditions: readonly (Rendered & { sha256: string; recipe: string })[],
): Promise<void> {
  if (renditions.length === 0) return;
  await tx.run(
    `insert into renditions (sha256, recipe, mime, width, height, bytes)
     select x.sha256, x.recipe, x.mime, x.width, x.height, x.bytes
     from jsonb_to_recordset($1::jsonb) as x (sha256 text, recipe text, mime text, width int, height int, bytes bigint)
     on conflict do nothing`,
    [JSON.stringify(renditions)],
  );
}

/** The contents of pictures and videos of posts. */
async function listContents(db: Queryable, postIds: readonly string[]): Promise<string[]> {
  const rows = await db.rows<{ sha256: string }>('select distinct sha256 from media where post_id = any($1::uuid[])', [
    postIds,
  ]);
  return rows.map(({ sha256 }) => sha256);
}

/**
 * Makes the pictures of posts ready as they would leave, those that never were, and keeps their measures: so that a post
 * is checked by what its network will get. One at a time, since each takes the room of its pixels; videos leave as they are.
 *
 * @returns the contents whose files are lost
 */
export async function measurePictures(
  db: Db,
  folder: string,
  postIds: readonly string[],
): Promise<ReadonlySet<string>> {
  const lost = new Set((await listContents(db, postIds)).filter((sha256) => !hasFile(folder, sha256)));
  const measured: (Rendered & { sha256: string; recipe: string })[] = [];
  for (const stored of await listUnrendered(db, postIds)) {
    if (isVideo(stored) || lost.has(stored.sha256)) continue;
    const { crop, toMime, toBytes, sha256, recipe } = stored;
    const picture = await measureRendered(folder, {
      ...AS_IT_IS,
      ...stored,
      alt: '',
      recipe: { crop, toMime, toBytes },
    }).catch((error: unknown) => {
      // What takes too long, or cannot be drawn any more, stays without measures, and so is not scheduled.
      if (error instanceof NativeFailedError || error instanceof LostFileError) return null;
      throw error;
    });
    if (!picture) continue;
    const { mime, width = 0, height = 0, bytes } = picture;
    measured.push({ sha256, recipe, mime, width, height, bytes });
  }
  await insertRenditions(db, measured);
  return lost;
}
