import type { ImportGround, ImportRow } from '@/core/exchange/planImport';
import { localOf } from '@/core/time/plan';
import { oneBrand, type Brand } from '@/data/brands/brands';
import { listChannelsOf } from '@/data/brands/channels';
import { listCampaigns, listPillars } from '@/data/brands/themes';
import type { Queryable } from '@/data/database/db';
import { listBroughtIn } from '@/data/exchange/importedRows';
import { listPeopleOfBrand } from '@/data/people/people';
import { listPieceTitles } from '@/data/pieces/pieces';
import { listPostsById, type Post } from '@/data/posts/posts';

/** The source a file is known by: its name without ending, and without the number that downloading twice adds. */
export const sourceOf = (fileName: string): string =>
  fileName
    .toLowerCase()
    .replace(/\.[a-z0-9]{1,12}$/, '')
    .replace(/\(\d{1,6}\)$/, '')
    .trim()
    .slice(0, 200);

/** What a header is known by when it comes again. */
export const headerKey = (header: readonly string[]): string => header.join('\u001f').toLowerCase().slice(0, 4_000);

/** What the rows of a file are held against. */
export async function groundOf(db: Queryable, brandId: string, now: string) {
  const brand = await oneBrand(db, brandId);
  const channels = await listChannelsOf(db, [brandId], { archived: true });
  const ground: ImportGround = {
    channels,
    people: await listPeopleOfBrand(db, brandId),
    pillars: await listPillars(db, [brandId], { archived: true }),
    campaigns: await listCampaigns(db, [brandId], { archived: true }),
    zone: brand.zone,
    today: localOf(now, brand.zone).date,
  };
  return { brand, channels, ground };
}

/** Rows by what they come to: a new post, a change of one that is there, or nothing. */
export interface Compared {
  fresh: ImportRow[];
  differing: { row: ImportRow; postId: string }[];
  same: ImportRow[];
}

/** Holds the rows of a file against the posts that are there. */
export async function compareRows(
  db: Queryable,
  brand: Brand,
  source: string,
  rows: readonly ImportRow[],
): Promise<Compared> {
  const present = await presentPosts(db, brand, source, rows);
  const titles = await listPieceTitles(
    db,
    [...present.values()].map((post) => post.pieceId),
  );
  const compared: Compared = { fresh: [], differing: [], same: [] };
  for (const row of rows) {
    const post = present.get(row.key);
    if (!post) compared.fresh.push(row);
    else if (differences(row, post, titles[post.pieceId] ?? '').length === 0) compared.same.push(row);
    else compared.differing.push({ row, postId: post.id });
  }
  return compared;
}

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/;

/** The posts that rows stand for already: by their own id, or by what the same file brought in before. */
async function presentPosts(
  db: Queryable,
  brand: Brand,
  source: string,
  rows: readonly ImportRow[],
): Promise<Map<string, Post>> {
  const known = await listBroughtIn(
    db,
    brand.id,
    source,
    rows.map(({ key }) => key),
  );
  const idOf = (row: ImportRow) => (UUID.test(row.givenId) ? row.givenId : known.get(row.key));
  const ids = rows.flatMap((row) => idOf(row) ?? []);
  const posts = new Map((await listPostsById(db, ids)).map((post) => [post.id, post]));
  const present = new Map<string, Post>();
  for (const row of rows) {
    const post = posts.get(idOf(row) ?? '');
    if (post && post.brandId === brand.id && post.deletedAt === null) present.set(row.key, post);
  }
  return present;
}

const FIELDS = [
  'title',
  'channelId',
  'format',
  'date',
  'time',
  'stage',
  'headline',
  'caption',
  'hashtags',
  'link',
  'ownerId',
  'pillarId',
  'campaignId',
] as const;
type Field = (typeof FIELDS)[number];

/** The fields in which a row differs from its post. A file without the column says nothing about a field. */
function differences(row: ImportRow, post: Post, pieceTitle: string): (Field | 'piece')[] {
  const fields: (Field | 'piece')[] = FIELDS.filter(
    (field) => row[field] !== undefined && row[field] !== withPlainBreaks(post[field]),
  );
  if (row.pieceTitle !== pieceTitle && row.pieceTitle !== row.title) fields.push('piece');
  return fields;
}

const withPlainBreaks = (value: string | null): string | null => value?.replace(/\r\n?/g, '\n') ?? null;
