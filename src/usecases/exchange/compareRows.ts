import { groupBy } from '@/core/group';
import type { ListColumn, ListedPart } from '@/core/exchange/lists';
import type { BadRow, ImportGround, ImportRow, RowStep } from '@/core/exchange/planImport';
import { WRITTEN_FIELDS } from '@/core/posts/texts';
import { MEASURES, NOTHING_TOLD, type Counts, type Reading } from '@/core/results/engagement';
import { localOf } from '@/core/time/plan';
import { oneBrand, type Brand } from '@/data/brands/brands';
import { listChannelsOf } from '@/data/brands/channels';
import { listCampaigns, listPillars } from '@/data/brands/themes';
import type { Queryable } from '@/data/database/db';
import { listBroughtIn } from '@/data/exchange/importedRows';
import { listPeopleOfBrand } from '@/data/people/people';
import { listPieceTitles } from '@/data/pieces/pieces';
import { latestReadings } from '@/data/results/readings';
import type { Picture } from '@/data/media/media';
import { listPostsById, listPublishedAt, type Post } from '@/data/posts/posts';
import type { Step } from '@/data/prep/steps';
import type { RowNote } from './checkedRows';
import {
  areExtracts,
  arePictures,
  isStep,
  picturesOfRow,
  readListings,
  readNamedFiles,
  type NamedFiles,
  type TextOfPiece,
} from './listings';

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

/** A row that says something else of its post than is known. */
export interface Differing {
  row: ImportRow;
  postId: string;
  pieceId: string;
  /** Whether it is of the post itself: its place, words, people or pictures. */
  isOfPost: boolean;
  /** The steps that the post has, where the row tells others. */
  steps: readonly Step[] | null;
  /** Whether the row tells other extracts. */
  isOfExtracts: boolean;
}

/** Rows by what they come to: a new post, a change of one that is there, or nothing. */
export interface Compared {
  fresh: ImportRow[];
  differing: Differing[];
  /** Rows that tell numbers of their post which are not known yet. */
  counted: { row: ImportRow; postId: string; counts: Counts }[];
  same: ImportRow[];
  /** Rows that tell numbers of no post that is there and published. */
  lost: BadRow[];
  /** The files of the library that rows name. */
  files: NamedFiles;
  /** What to know of rows: files that they name and that are not there. */
  notes: RowNote[];
}

/** Holds the rows of a file against the posts that are there. */
export async function compareRows(
  db: Queryable,
  brand: Brand,
  source: string,
  rows: readonly ImportRow[],
  textOf: TextOfPiece,
): Promise<Compared> {
  const present = await presentPosts(db, brand, source, rows);
  const titles = await listPieceTitles(
    db,
    [...present.values()].map((post) => post.pieceId),
  );
  const files = await readNamedFiles(db, brand.id, rows);
  const columns = new Set(rows.flatMap(({ lists }) => Object.keys(lists) as ListColumn[]));
  const ids = [...present.values()].map((post) => post.id);
  const [numbers, listings] = [await latestReadings(db, ids), await readListings(db, ids, columns, textOf)];
  const compared: Compared = { fresh: [], differing: [], counted: [], same: [], lost: [], files, notes: [] };
  for (const row of rows) {
    const post = present.get(row.key);
    if (row.isCount && post?.stage !== 'published') {
      compared.lost.push({ line: row.line, reason: whyLost(row, post) });
      continue;
    }
    const pictures = post ? (listings.pictures.get(post.id) ?? []) : [];
    const told = row.lists.media && picturesOfRow(row.lists.media, pictures, files, () => '');
    for (const file of told?.lacking ?? []) compared.notes.push({ line: row.line, message: lackingFile(file) });
    if (!post) {
      compared.fresh.push(row);
      continue;
    }
    const known = numbers.get(post.id);
    const isCounted = tellsMore(row, known);
    if (isCounted)
      compared.counted.push({ row, postId: post.id, counts: { ...NOTHING_TOLD, ...known, ...row.numbers } });
    const steps = listings.steps.get(post.id) ?? [];
    const { steps: toldSteps, extracts } = row.lists;
    const isOther =
      (told !== undefined && told.lacking.length === 0 && !arePictures(told.pictures, pictures)) ||
      (row.lists.parts !== undefined && !areParts(row.lists.parts, post.parts, told?.byNumber ?? null));
    const difference: Differing = {
      ...{ row, postId: post.id, pieceId: post.pieceId },
      isOfPost: !row.isCount && (isOther || differences(row, post, titles[post.pieceId] ?? '').length > 0),
      steps: toldSteps && !areSteps(toldSteps, steps) ? steps : null,
      isOfExtracts: extracts !== undefined && !areExtracts(extracts, listings.extracts.get(post.id) ?? []),
    };
    if (difference.isOfPost || difference.steps || difference.isOfExtracts) compared.differing.push(difference);
    else if (!isCounted) compared.same.push(row);
  }
  return compared;
}

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/;

/** The posts that rows stand for already: by their own id, by what the same file brought in before, or by where they were published. */
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
  const byAddress = await idsByAddress(
    db,
    brand.id,
    rows.flatMap(({ address }) => address ?? []),
  );
  // The id of another folder means nothing here: then it is what the same row brought in.
  const idsOf = ({ givenId, key, channelId, address }: ImportRow) =>
    [UUID.test(givenId) ? givenId : undefined, known.get(key), byAddress.get(`${channelId} ${address}`)].flatMap(
      (id) => id ?? [],
    );
  const posts = new Map((await listPostsById(db, rows.flatMap(idsOf))).map((post) => [post.id, post]));
  const isHere = (post: Post | undefined) => post?.brandId === brand.id && post.deletedAt === null;
  const present = new Map<string, Post>();
  for (const row of rows) {
    const post = idsOf(row)
      .map((id) => posts.get(id))
      .find(isHere);
    if (post) present.set(row.key, post);
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
  ...WRITTEN_FIELDS,
  'address',
  'setAsideReason',
  'ownerId',
  'pillarId',
  'campaignId',
] as const;
type Field = (typeof FIELDS)[number];

/** Whether a row tells numbers that are other ones than those that are known. */
const tellsMore = ({ numbers = {} }: ImportRow, known: Reading | undefined): boolean =>
  MEASURES.some((measure) => numbers[measure] !== undefined && numbers[measure] !== known?.[measure]);

/** The fields in which a row differs from its post. A file without the column says nothing about a field. */
function differences(row: ImportRow, post: Post, pieceTitle: string): (Field | 'piece')[] {
  const fields: (Field | 'piece')[] = FIELDS.filter(
    (field) => row[field] !== undefined && row[field] !== withPlainBreaks(post[field]),
  );
  if (row.pieceTitle !== pieceTitle && row.pieceTitle !== row.title) fields.push('piece');
  return fields;
}

/** The ids of posts that were published at these addresses, by channel and address, and by the address alone. */
async function idsByAddress(
  db: Queryable,
  brandId: string,
  addresses: readonly string[],
): Promise<Map<string, string>> {
  const found = await listPublishedAt(db, brandId, addresses);
  const ids = new Map(found.map(({ id, channelId, address }) => [`${channelId} ${address}`, id]));
  // Without a channel an address says which post is meant where one alone has it.
  const byAddress = groupBy(found, ({ address }) => address);
  for (const [address, posts] of byAddress) if (posts.length === 1) ids.set(` ${address}`, posts[0]!.id);
  return ids;
}

function whyLost({ address, givenId }: ImportRow, post: Post | undefined): string {
  if (post) return `“${post.title}” is not published, so nobody can have seen it`;
  return address === undefined ? `no post has the id “${givenId}”` : `no one post was published at “${address}”`;
}

/** Whether a post has the parts that a row tells. @param byNumber the pictures of the row; null where it tells of none */
export const areParts = (
  told: readonly ListedPart[],
  parts: Post['parts'],
  byNumber: readonly (Pick<Picture, 'id'> | null)[] | null,
): boolean =>
  told.length === parts.length &&
  told.every(({ text, picture }, at) => {
    const shown = picture === null ? undefined : byNumber?.[picture - 1]?.id;
    return text === withPlainBreaks(parts[at]!.text) && (shown === undefined || shown === parts[at]!.pictureId);
  });

const areSteps = (told: readonly RowStep[], steps: readonly Step[]): boolean =>
  told.length === steps.length && told.every((step, at) => isStep(step, steps[at]!));

const lackingFile = (file: string): string =>
  `“${file}” is not in the library. Add it there, then import the file once more.`;

const withPlainBreaks = (value: string | null): string | null => value?.replace(/\r\n?/g, '\n') ?? null;
