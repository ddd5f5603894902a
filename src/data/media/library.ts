import { searchQuery } from '@/core/search/search';
import type { Instant, LocalDate } from '@/core/time/plan';
import type { Queryable } from '../database/db';

/** A picture or video of a brand, once by its content, with where it is used. */
export interface LibraryFile {
  sha256: string;
  mime: string;
  width: number;
  height: number;
  durationMs: number | null;
  bytes: number;
  fileName: string;
  addedAt: Instant;
  /** What was said of it last, where a post uses it. */
  alt: string;
  /** Live posts that use it. */
  uses: number;
  /** The newest of them. */
  usedIn: { postId: string; title: string; callSign: string; date: LocalDate | null }[];
}

/** Posts named for each file. */
const USES_NAMED = 6;

/**
 * Files of a brand, the newest first, found by their names or by what was said of them.
 *
 * @param words empty for all
 * @param before the last file of the page before; null for the first page
 */
export function listLibrary(
  db: Queryable,
  brandId: string,
  words: string,
  before: Pick<LibraryFile, 'addedAt' | 'sha256'> | null,
  limit: number,
): Promise<LibraryFile[]> {
  const query = searchQuery(words);
  return db.rows<LibraryFile>(
    `with files as materialized (
       select * from library_files f
       where f.brand_id = $1
         and ($2 = '' or f.search @@ to_tsquery('simple', $2) or f.sha256 in (
           select m.sha256 from media m where m.brand_id = $1 and search_of(m.alt) @@ to_tsquery('simple', $2)))
         and ($3::timestamptz is null or (f.added_at, f.sha256) < ($3, $4))
       order by f.added_at desc, f.sha256 desc limit $5
     ), used as (
       select m.sha256, m.alt, p.id, p.title, c.call_sign, p.plan_date,
         row_number() over (partition by m.sha256 order by p.plan_date desc nulls first, p.id) as place
       from media m join posts p on p.id = m.post_id join channels c on c.id = p.channel_id
       where m.brand_id = $1 and m.sha256 in (select sha256 from files) and p.deleted_at is null and p.stage <> 'setAside'
     )
     select f.sha256, f.mime, f.width, f.height, f.duration_ms as "durationMs", f.bytes, f.file_name as "fileName",
       f.added_at as "addedAt", coalesce(u.alt, '') as alt, coalesce(u.uses, 0)::int as uses,
       coalesce(u.used_in, '[]') as "usedIn"
     from files f left join (
       select sha256, count(distinct id) as uses, max(alt) filter (where alt <> '') as alt,
         jsonb_agg(jsonb_build_object('postId', id, 'title', title, 'callSign', call_sign, 'date', plan_date)
           order by place) filter (where place <= ${USES_NAMED}) as used_in
       from used group by sha256
     ) u on u.sha256 = f.sha256
     order by f.added_at desc, f.sha256 desc`,
    [brandId, query, before?.addedAt ?? null, before?.sha256 ?? '', limit],
  );
}

/** A file of a brand's library, if it has it. */
export async function maybeLibraryFile(
  db: Queryable,
  brandId: string,
  sha256: string,
): Promise<Omit<LibraryFile, 'alt' | 'uses' | 'usedIn'> | undefined> {
  const rows = await db.rows<Omit<LibraryFile, 'alt' | 'uses' | 'usedIn'>>(
    `select sha256, mime, width, height, duration_ms as "durationMs", bytes, file_name as "fileName", added_at as "addedAt"
     from library_files where brand_id = $1 and sha256 = $2`,
    [brandId, sha256],
  );
  return rows[0];
}

/** Files of a brand's library by their contents or names, the newest last. */
export function listLibraryFilesBy(
  db: Queryable,
  brandId: string,
  { hashes, fileNames }: { hashes: readonly string[]; fileNames: readonly string[] },
): Promise<Omit<LibraryFile, 'alt' | 'uses' | 'usedIn' | 'addedAt'>[]> {
  return db.rows(
    `select sha256, mime, width, height, duration_ms as "durationMs", bytes, file_name as "fileName" from library_files
     where brand_id = $1 and (sha256 = any($2::text[]) or file_name = any($3::text[])) order by added_at, sha256`,
    [brandId, hashes, fileNames],
  );
}

/** Adds files to libraries; those known by their content stay as they are. @returns how many were new */
export function insertLibraryFiles(
  tx: Queryable,
  files: readonly (Omit<LibraryFile, 'alt' | 'uses' | 'usedIn'> & { brandId: string })[],
): Promise<number> {
  return tx.run(
    `insert into library_files (brand_id, sha256, mime, width, height, duration_ms, bytes, file_name, added_at)
     select x."brandId", x.sha256, x.mime, x.width, x.height, x."durationMs", x.bytes, x."fileName", x."addedAt"
     from jsonb_to_recordset($1::jsonb) as x ("brandId" uuid, sha256 text, mime text, width int, height int,
       "durationMs" int, bytes bigint, "fileName" text, "addedAt" timestamptz)
     on conflict (brand_id, sha256) do nothing`,
    [JSON.stringify(files)],
  );
}

/** Whether a post or piece of a brand uses a file. */
export async function existsUseOfFile(tx: Queryable, brandId: string, sha256: string): Promise<boolean> {
  const rows = await tx.rows(
    `select 1 from media where brand_id = $1 and sha256 = $2
     union all select 1 from piece_media where brand_id = $1 and sha256 = $2 limit 1`,
    [brandId, sha256],
  );
  return rows.length > 0;
}

/** Takes a file from a brand's library. */
export async function deleteLibraryFile(tx: Queryable, brandId: string, sha256: string): Promise<void> {
  await tx.run('delete from library_files where brand_id = $1 and sha256 = $2', [brandId, sha256]);
}

/** A delivery `d` that may still be sent, or shown as what left. */
const KEEPS_ITS_FILES = `(d.state in ('waiting', 'sending', 'held', 'failed', 'unknown') or d.unsure_since is not null)`;

/** All contents that some row points to, as `listKnownContents` counts them. */
export async function listAllContents(db: Queryable): Promise<string[]> {
  const rows = await db.rows<{ sha256: string }>(
    `select sha256 from library_files union select sha256 from media union select sha256 from piece_media
     union select sha256 from brand_assets where sha256 is not null
     union select x.picture ->> 'sha256' from posts p,
       jsonb_array_elements(p.not_sent -> 'copy' -> 'pictures') as x (picture) where p.not_sent is not null
     union select x.picture ->> 'sha256' from deliveries d, jsonb_array_elements(d.parcel -> 'pictures') as x (picture)
       where ${KEEPS_ITS_FILES}
     union select found[1] from changes c, regexp_matches(c.items::text, '"sha256": "([0-9a-f]{64})"', 'g') as m (found)`,
  );
  return rows.map(({ sha256 }) => sha256);
}

/** Which of these contents some row still points to: a library, a post, a piece, what a post did not send, a brand sheet, a copy that waits to leave, or what can be undone. */
export async function listKnownContents(db: Queryable, hashes: readonly string[]): Promise<Set<string>> {
  const rows = await db.rows<{ sha256: string }>(
    `select h.sha256 from unnest($1::text[]) as h (sha256)
     where exists (select 1 from library_files f where f.sha256 = h.sha256)
       or exists (select 1 from media m where m.sha256 = h.sha256)
       or exists (select 1 from piece_media m where m.sha256 = h.sha256)
       or exists (select 1 from brand_assets b where b.sha256 = h.sha256)
       or exists (select 1 from posts p where p.not_sent is not null
         and p.not_sent -> 'copy' -> 'pictures' @> jsonb_build_array(jsonb_build_object('sha256', h.sha256)))
       or exists (select 1 from deliveries d where ${KEEPS_ITS_FILES}
         and d.parcel -> 'pictures' @> jsonb_build_array(jsonb_build_object('sha256', h.sha256)))
       or exists (select 1 from changes c where position(h.sha256 in c.items::text) > 0)`,
    [hashes],
  );
  return new Set(rows.map(({ sha256 }) => sha256));
}
