import type { Words } from '@/core/captions/compose';
import type { Lasting } from '@/core/encores/encores';
import type { DraftedMark } from '@/core/posts/unread';
import { ofEachText, WRITTEN_FIELDS, type WrittenField } from '@/core/posts/texts';
import type { WrittenWords } from '@/core/posts/written';
import type { Format } from '@/core/rulesheets/types';
import type { Stage } from '@/core/stages/stages';
import type { NotSent } from '@/core/delivery/notSent';
import type { SignOff } from '@/core/posts/signOff';
import type { Waiver } from '@/core/posts/wants';
import type { Instant, LocalDate, LocalTime } from '@/core/time/plan';
import type { Queryable } from '../database/db';
import { columnOf, columnsOfTexts } from './textColumns';
import { instantText, namedColumns, timeText, type Columns } from '../database/manyRows';

/** One publication of a piece on one channel. */
export interface Post extends WrittenWords {
  id: string;
  brandId: string;
  pieceId: string;
  channelId: string;
  format: Format;
  /** The working title: for the team, never sent. */
  title: string;
  date: LocalDate | null;
  time: LocalTime | null;
  stage: Stage;
  /** Where it stood before it was set aside. */
  stageBefore: Stage | null;
  setAsideReason: string;
  ownerId: string;
  pillarId: string | null;
  campaignId: string | null;
  /**
   * The end of the window that begins at its time, so that its minute is chosen when it is scheduled; its own time where it leaves at that
   * very minute; null where the rhythm of its channel says.
   */
  until: LocalTime | null;
  /** Where the window began in which its minute was chosen; null while none was. */
  windowFrom: LocalTime | null;
  repeatId: string | null;
  /** Its number in the repeat; null without one. */
  repeatNumber: number | null;
  publishedAt: Instant | null;
  address: string;
  archivedAt: Instant | null;
  deletedAt: Instant | null;
  /** Wants that a manager let go. */
  waived: Waiver[];
  /** The last yes to it; null while nobody gave one. */
  signOff: SignOff | null;
  /** What stood on its sheet when it went out with other words; null where nothing differs. */
  notSent: NotSent | null;
  /** The sentences of its draft, with where each is from. */
  drafted: DraftedMark[];
  /** The text of its piece that it was made of, where the piece says something else by now; null where it does not, or it was corrected since. */
  madeOf: string | null;
  /** The first post of those that are the same one again on the same channel; null for one that is none of another. */
  encoreOf: string | null;
  /** Whether it may come again. */
  lasting: Lasting;
  createdAt: Instant;
  version: number;
}

/** Where each field of a post `p` stands. */
const POST: Columns<Post> = {
  id: 'p.id',
  brandId: 'p.brand_id',
  pieceId: 'p.piece_id',
  channelId: 'p.channel_id',
  format: 'p.format',
  title: 'p.title',
  ...columnsOfTexts('p', WRITTEN_FIELDS),
  parts: 'p.parts',
  date: 'p.plan_date',
  time: 'p.plan_time',
  until: 'p.plan_until',
  windowFrom: 'p.window_from',
  stage: 'p.stage',
  stageBefore: 'p.stage_before',
  setAsideReason: 'p.set_aside_reason',
  ownerId: 'p.owner_id',
  pillarId: 'p.pillar_id',
  campaignId: 'p.campaign_id',
  repeatId: 'p.repeat_id',
  repeatNumber: 'p.repeat_number',
  publishedAt: 'p.published_at',
  address: 'p.address',
  archivedAt: 'p.archived_at',
  deletedAt: 'p.deleted_at',
  waived: 'p.waived',
  signOff: 'p.signed_off',
  notSent: 'p.not_sent',
  drafted: 'p.drafted',
  madeOf: 'p.made_of',
  encoreOf: 'p.encore_of',
  lasting: 'p.lasting',
  createdAt: 'p.created_at',
  version: 'p.version',
};

/** The columns of a post `p`. */
const COLUMNS = namedColumns(POST);

/** The columns of a post `p` as `manyRows` asks for them. */
export const JSON_COLUMNS: Columns<Post> = {
  ...POST,
  time: timeText(POST.time),
  until: timeText(POST.until),
  windowFrom: timeText(POST.windowFrom),
  publishedAt: instantText(POST.publishedAt),
  archivedAt: instantText(POST.archivedAt),
  deletedAt: instantText(POST.deletedAt),
  createdAt: instantText(POST.createdAt),
};

/** The post with that id, deleted or not. */
export async function maybePost(db: Queryable, id: string): Promise<Post | undefined> {
  return (await db.rows<Post>(`select ${COLUMNS} from posts p where p.id = $1`, [id]))[0];
}

/** The posts with these ids, deleted ones too, in no order. */
export function listPostsById(db: Queryable, ids: readonly string[]): Promise<Post[]> {
  return db.rows<Post>(`select ${COLUMNS} from posts p where p.id = any($1::uuid[])`, [ids]);
}

/** Scheduled posts of a channel by date, at most `limit`. */
export function listScheduledOfChannel(
  db: Queryable,
  channelId: string,
  limit: number,
): Promise<{ id: string; title: string; date: LocalDate }[]> {
  return db.rows(
    `select id, title, plan_date as date from posts where channel_id = $1 and stage = 'scheduled' and deleted_at is null
     order by plan_date limit $2`,
    [channelId, limit],
  );
}

/** The ids of posts on these channels that are ready or scheduled: those that new rules may touch. */
export async function listReadyOrScheduledOn(db: Queryable, channelIds: readonly string[]): Promise<string[]> {
  const rows = await db.rows<{ id: string }>(
    `select id from posts where channel_id = any($1::uuid[]) and stage in ('ready', 'scheduled') and deleted_at is null
     order by id`,
    [channelIds],
  );
  return rows.map(({ id }) => id);
}

/** Scheduled posts of a brand with the instants they leave at, in the order they leave. */
export function listScheduledOfBrand(
  db: Queryable,
  brandId: string,
): Promise<{ id: string; title: string; callSign: string; date: LocalDate; time: LocalTime; dueAt: Instant }[]> {
  return db.rows(
    `select p.id, p.title, c.call_sign as "callSign", p.plan_date as date, p.plan_time as time, d.due_at as "dueAt"
     from posts p join channels c on c.id = p.channel_id
       join deliveries d on d.post_id = p.id and d.state <> 'withdrawn'
     where p.brand_id = $1 and p.stage = 'scheduled' and p.deleted_at is null
     order by d.due_at, p.id`,
    [brandId],
  );
}

/**
 * The days that prep counts back from, by id: of a post its own, of a piece the one it was given, or else that of its
 * earliest live post; null for those without.
 */
export async function listAnchors(db: Queryable, ids: readonly string[]): Promise<Map<string, LocalDate | null>> {
  const rows = await db.rows<{ id: string; date: LocalDate | null }>(
    `select id, plan_date as date from posts where id = any($1::uuid[])
     union all
     select g.id, coalesce(g.prep_day, (select min(p.plan_date) from posts p
       where p.piece_id = g.id and p.deleted_at is null and p.stage <> 'setAside'))
     from pieces g where g.id = any($1::uuid[])`,
    [ids],
  );
  return new Map(rows.map(({ id, date }) => [id, date]));
}

/** The versions of posts by id. */
export async function listVersions(db: Queryable, ids: readonly string[]): Promise<Map<string, number>> {
  const rows = await db.rows<{ id: string; version: number }>(
    'select id, version from posts where id = any($1::uuid[])',
    [ids],
  );
  return new Map(rows.map(({ id, version }) => [id, version]));
}

/** The posts of a piece that can still be written, undated ones last. */
export async function listOpenPostIdsOfPiece(db: Queryable, pieceId: string, limit: number): Promise<string[]> {
  const rows = await db.rows<{ id: string }>(
    `select id from posts where piece_id = $1 and deleted_at is null and stage not in ('published', 'setAside')
     order by plan_date nulls last, plan_time nulls last, id limit $2`,
    [pieceId, limit],
  );
  return rows.map(({ id }) => id);
}

/** The posts of a brand that were published at these addresses. */
export async function listPublishedAt(
  db: Queryable,
  brandId: string,
  addresses: readonly string[],
): Promise<Pick<Post, 'id' | 'channelId' | 'address'>[]> {
  if (addresses.length === 0) return [];
  return db.rows(
    `select id, channel_id as "channelId", address from posts
     where brand_id = $1 and address = any($2::text[]) and stage = 'published' and deleted_at is null order by created_at, id`,
    [brandId, addresses],
  );
}

/** How many posts of each of these pieces are published; those of which none is are absent. */
export async function countPublishedOfPieces(db: Queryable, pieceIds: readonly string[]): Promise<Map<string, number>> {
  const rows = await db.rows<{ id: string; count: number }>(
    `select piece_id as id, count(*)::int as count from posts
     where piece_id = any($1::uuid[]) and deleted_at is null and stage = 'published' group by piece_id`,
    [pieceIds],
  );
  return new Map(rows.map(({ id, count }) => [id, count]));
}

/** Adds posts. */
export async function insertPosts(
  tx: Queryable,
  posts: readonly (Words &
    Partial<WrittenWords> &
    Pick<
      Post,
      | 'id'
      | 'brandId'
      | 'pieceId'
      | 'channelId'
      | 'format'
      | 'title'
      | 'date'
      | 'time'
      | 'stage'
      | 'ownerId'
      | 'publishedAt'
      | 'address'
    > &
    Partial<
      Pick<
        Post,
        'pillarId' | 'campaignId' | 'repeatId' | 'repeatNumber' | 'signOff' | 'drafted' | 'encoreOf' | 'madeOf'
      >
    > & {
      createdAt: Instant;
      /** Who made it, where that is not its owner. */
      createdBy?: string;
    })[],
): Promise<void> {
  await tx.run(
    `insert into posts (id, brand_id, piece_id, channel_id, format, title, plan_date, plan_time, stage, owner_id, created_by,
       published_at, address, created_at, pillar_id, campaign_id, repeat_id, repeat_number, set_aside_reason, parts,
       signed_off, drafted, encore_of, made_of, ${WRITTEN_FIELDS.map(columnOf).join(', ')})
     select x.id, x."brandId", x."pieceId", x."channelId", x.format, x.title, x.date, x.time, x.stage, x."ownerId",
       coalesce(x."createdBy", x."ownerId"), x."publishedAt", x.address, x."createdAt", x."pillarId", x."campaignId",
       x."repeatId", x."repeatNumber", coalesce(x."setAsideReason", ''), coalesce(x.parts, '[]'),
       nullif(x."signOff", 'null'), coalesce(x.drafted, '[]'), x."encoreOf", x."madeOf",
       ${WRITTEN_FIELDS.map((name) => `coalesce(x."${name}", '')`).join(', ')}
     from jsonb_to_recordset($1::jsonb) as x (id uuid, "brandId" uuid, "pieceId" uuid, "channelId" uuid, format text,
       title text, date date, time time, stage text, "ownerId" uuid, "createdBy" uuid, "publishedAt" timestamptz, address text,
       "createdAt" timestamptz, "pillarId" uuid, "campaignId" uuid, "repeatId" uuid, "repeatNumber" int, "setAsideReason" text,
       parts jsonb, "signOff" jsonb, drafted jsonb, "encoreOf" uuid, "madeOf" uuid, ${WRITTEN_FIELDS.map((name) => `"${name}" text`).join(', ')})`,
    [JSON.stringify(posts)],
  );
}

/** What can be written of a post; a key that is absent stays as it is. */
export type PostChange = Partial<
  Pick<
    Post,
    | 'title'
    | WrittenField
    | 'parts'
    | 'format'
    | 'ownerId'
    | 'date'
    | 'time'
    | 'until'
    | 'windowFrom'
    | 'stage'
    | 'stageBefore'
    | 'setAsideReason'
    | 'publishedAt'
    | 'address'
    | 'archivedAt'
    | 'deletedAt'
    | 'channelId'
    | 'pillarId'
    | 'campaignId'
    | 'waived'
    | 'signOff'
    | 'notSent'
    | 'drafted'
    | 'madeOf'
  >
>;

/** The column of each field that is written, with its type. */
const COLUMN_OF: Record<keyof PostChange, readonly [column: string, type: string]> = {
  title: ['title', 'text'],
  ...ofEachText((_text, name): readonly [string, string] => [columnOf(name), 'text']),
  parts: ['parts', 'jsonb'],
  format: ['format', 'text'],
  ownerId: ['owner_id', 'uuid'],
  date: ['plan_date', 'date'],
  time: ['plan_time', 'time'],
  until: ['plan_until', 'time'],
  windowFrom: ['window_from', 'time'],
  stage: ['stage', 'text'],
  stageBefore: ['stage_before', 'text'],
  setAsideReason: ['set_aside_reason', 'text'],
  publishedAt: ['published_at', 'timestamptz'],
  address: ['address', 'text'],
  archivedAt: ['archived_at', 'timestamptz'],
  deletedAt: ['deleted_at', 'timestamptz'],
  channelId: ['channel_id', 'uuid'],
  pillarId: ['pillar_id', 'uuid'],
  campaignId: ['campaign_id', 'uuid'],
  waived: ['waived', 'jsonb'],
  signOff: ['signed_off', 'jsonb'],
  notSent: ['not_sent', 'jsonb'],
  drafted: ['drafted', 'jsonb'],
  madeOf: ['made_of', 'uuid'],
};

/**
 * Writes posts as they are after a change, those that have the version given, and raises their versions by one. Their ids
 * are said once more, since the database takes a list of records for a hundred rows and would read all posts.
 *
 * @param fields the fields that are written, the same for all
 * @returns the ids of those that were written
 */
export async function updatePosts(
  tx: Queryable,
  posts: readonly Post[],
  fields: readonly (keyof PostChange)[],
): Promise<string[]> {
  const assignments = fields.map((field) => {
    const [column, type] = COLUMN_OF[field];
    return `${column} = ${type === 'jsonb' ? `nullif(x."${field}", 'null')` : `x."${field}"`}, `;
  });
  const columns = fields.map((field) => `, "${field}" ${COLUMN_OF[field][1]}`);
  const rows = posts.map((post) => ({
    id: post.id,
    version: post.version,
    ...Object.fromEntries(fields.map((field) => [field, post[field]])),
  }));
  const written = await tx.rows<{ id: string }>(
    `update posts p set ${assignments.join('')}version = p.version + 1
     from jsonb_to_recordset($1::jsonb) as x (id uuid, version int${columns.join('')})
     where p.id = x.id and p.version = x.version and p.id = any($2::uuid[]) returning p.id`,
    [JSON.stringify(rows), posts.map(({ id }) => id)],
  );
  return written.map(({ id }) => id);
}
