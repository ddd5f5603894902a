import type { Words } from '@/core/captions/compose';
import type { PictureMeasures } from '@/core/media/fit';
import { NEAR_DAYS, type CalendarFilter } from '@/core/calendar/filter';
import { searchQuery } from '@/core/search/search';
import { addDays } from '@/core/time/days';
import type { Format } from '@/core/rulesheets/types';
import type { Stage } from '@/core/stages/stages';
import type { DeliveryMode, DeliveryState } from '@/core/delivery/delivery';
import type { Parcel } from '@/core/delivery/network';
import { SENT_WORDS } from '@/core/posts/texts';
import type { SignOff } from '@/core/posts/signOff';
import type { DraftedMark } from '@/core/posts/unread';
import type { Waiver } from '@/core/posts/wants';
import type { WorkCounts } from '@/core/prep/progress';
import { WORKS, type Work } from '@/core/prep/step';
import type { Instant, LocalDate, LocalTime } from '@/core/time/plan';
import type { Queryable } from '../database/db';
import { columnsOfTexts } from './textColumns';
import { ownWords } from './ownWords';
import { instantText, manyRows, timeText, type Columns } from '../database/manyRows';

/** What the calendar, the tray and departures need of a post: no deed is done from this alone. */
export interface PostLine extends Words {
  id: string;
  brandId: string;
  pieceId: string;
  channelId: string;
  format: Format;
  title: string;
  date: LocalDate | null;
  time: LocalTime | null;
  stage: Stage;
  ownerId: string;
  pillarId: string | null;
  campaignId: string | null;
  repeatNumber: number | null;
  address: string;
  version: number;
  publishedAt: Instant | null;
  /** In their order: content hash, media type and size of each picture. */
  pictures: (PictureMeasures & { sha256: string; alt: string })[];
  waived: Waiver[];
  /** The sentences that were put into its draft. */
  drafted: DraftedMark[];
  /** Where its brand asks for a yes and it stands before one or behind it: the last yes, if there is one; else null. */
  asked: { signOff: SignOff | null } | null;
  /** Its piece says something else by now than when it was made. */
  isBehind: boolean;
  /** The steps before publishing; null for a post without prep. */
  prep: {
    /** By sort of work: how many are done, and how many there are. */
    counts: WorkCounts;
    /** The sort of the first that is not done. */
    nextWork: Work | null;
  } | null;
  /** Its current delivery, if it has one. */
  delivery: {
    id: string;
    mode: DeliveryMode;
    state: DeliveryState;
    unsure: boolean;
    /** It waits, since its folder was restored, until somebody releases it. */
    awaitsRelease: boolean;
    /** Whether its network goes on being asked whether it is out. */
    isAsked: boolean;
    /** Whether its network is there for practice only. */
    isPractice: boolean;
    attempts: number;
    dueAt: Instant;
    nextTryAt: Instant;
    words: string;
    /** The copy that is handed over; only where delivery is by hand. */
    parcel: Parcel | null;
  } | null;
}

const LINE_COLUMNS: Columns<PostLine> = {
  id: 'p.id',
  brandId: 'p.brand_id',
  pieceId: 'p.piece_id',
  channelId: 'p.channel_id',
  format: 'p.format',
  title: 'p.title',
  ...columnsOfTexts('p', SENT_WORDS),
  parts: 'p.parts',
  date: 'p.plan_date',
  time: timeText('p.plan_time'),
  stage: 'p.stage',
  ownerId: 'p.owner_id',
  pillarId: 'p.pillar_id',
  campaignId: 'p.campaign_id',
  repeatNumber: 'p.repeat_number',
  address: 'p.address',
  version: 'p.version',
  publishedAt: instantText('p.published_at'),
  pictures: `coalesce(m.pictures, '[]')`,
  waived: 'p.waived',
  drafted: 'p.drafted',
  asked: 'p.asked',
  isBehind: 'p.is_behind',
  prep: 's.prep',
  delivery: 'd.delivery',
};

/** Only what the lines need: the column of search words is longer than all the rest. */
const WANTED = `p.id, p.brand_id, p.piece_id, p.channel_id, p.format, p.title, ${Object.values(columnsOfTexts('p', SENT_WORDS)).join(', ')},
  p.parts, p.plan_date, p.plan_time, p.stage, p.owner_id, p.pillar_id, p.campaign_id, p.repeat_number, p.address, p.version,
  p.published_at, p.created_at, p.waived, p.drafted, p.made_of is not null as is_behind,
  case when p.stage in ('signOff', 'ready') and exists (select 1 from brands b where b.id = p.brand_id and b.asks_sign_off)
    then jsonb_build_object('signOff', p.signed_off) end as asked`;

/** How many steps of each sort of work are done, and how many there are. */
const WORK_COUNTS = WORKS.map(
  (work) =>
    `'${work}', jsonb_build_array(count(*) filter (where s.work = '${work}' and s.done_at is not null), count(*) filter (where s.work = '${work}'))`,
).join(', ');

/**
 * Pictures, prep and delivery are looked up post by post by their indexes: joined as sets they cost a little less where the
 * database knows how many rows there are, and many times more where it does not (no statistics are gathered by itself there).
 */
const lineSource = (order: string) => `
  wanted p
  left join lateral (
    select jsonb_agg(jsonb_build_object('id', m.id, 'sha256', m.sha256, 'mime', m.mime, 'bytes', m.bytes, 'alt', m.alt,
      'width', m.width, 'height', m.height, 'crop', m.crop, 'toMime', m.to_mime, 'toBytes', m.to_bytes, 'durationMs', m.duration_ms,
      'rendered', case when r.sha256 is not null then jsonb_build_object('mime', r.mime, 'width', r.width, 'height', r.height,
        'bytes', r.bytes) end) order by m.position) as pictures
    from media m left join renditions r on r.sha256 = m.sha256 and r.recipe = m.recipe where m.post_id = p.id
  ) m on true
  left join lateral (
    select case when count(*) > 0 then jsonb_build_object('counts', jsonb_build_object(${WORK_COUNTS}),
      'nextWork', (array_agg(s.work order by s.position) filter (where s.done_at is null))[1]) end as prep
    from steps s where s.lead >= 0 and s.post_id = p.id
  ) s on true
  left join lateral (
    select jsonb_build_object('id', d.id, 'mode', d.mode, 'state', d.state, 'unsure', d.unsure_since is not null, 'isAsked', d.ask_at is not null, 'isPractice', d.is_practice,
      'awaitsRelease', d.awaits_release,
      'attempts', d.attempts, 'words', d.words, 'parcel', case when d.mode = 'byHand' then d.parcel end,
      'dueAt', ${instantText('d.due_at')},
      'nextTryAt', ${instantText('d.next_try_at')}) as delivery
    from deliveries d where d.state <> 'withdrawn' and d.post_id = p.id limit 1
  ) d on true
  order by ${order}`;

function lines(
  db: Queryable,
  where: string,
  order: string,
  parameters: Parameters<Queryable['rows']>[1],
  limit = '',
): Promise<PostLine[]> {
  const wanted = `with wanted as materialized (select ${WANTED} from posts p where ${where} ${limit})`;
  return manyRows<PostLine>(db, LINE_COLUMNS, lineSource(order), parameters, wanted);
}

const SHOWN = `p.deleted_at is null and p.archived_at is null and p.stage <> 'setAside'`;

/** A condition with the values it speaks of. */
interface Condition {
  where: string;
  parameters: NonNullable<Parameters<Queryable['rows']>[1]>[number][];
}

/** A filter as a condition on `posts p`; its parameters are numbered from `$first`. `today` decides what is near. */
function filterCondition(filter: CalendarFilter, today: LocalDate, first: number): Condition {
  const parts: string[] = [];
  const parameters: Condition['parameters'] = [];
  const add = (sql: (place: string) => string, value: Condition['parameters'][number]) => {
    parameters.push(value);
    parts.push(sql(`$${first + parameters.length - 1}`));
  };
  const among = (column: string, values: readonly string[], type: 'uuid' | 'text') => {
    if (values.length > 0) add((place) => `p.${column} = any(${place}::${type}[])`, values);
  };
  among('channel_id', filter.channels, 'uuid');
  among('format', filter.formats, 'text');
  among('stage', filter.stages, 'text');
  among('pillar_id', filter.pillars, 'uuid');
  among('campaign_id', filter.campaigns, 'uuid');
  among('owner_id', filter.owners, 'uuid');
  const words = searchQuery(filter.words);
  if (words !== '') add((place) => `p.search @@ to_tsquery('simple', ${place})`, words);
  for (const lack of filter.lacks) {
    if (lack === 'picture') parts.push('not exists (select 1 from media m where m.post_id = p.id)');
    if (lack === 'caption') parts.push(`p.caption !~ '\\S'`);
    if (lack === 'readyNear') {
      parts.push(`p.stage in ('drafting', 'production', 'signOff')`);
      add((place) => `p.plan_date >= ${place}::date`, today);
      add((place) => `p.plan_date < ${place}::date`, addDays(today, NEAR_DAYS));
    }
  }
  return { where: parts.map((part) => ` and ${part}`).join(''), parameters };
}

/** Set aside posts show only where they are asked for. */
const shownWith = (filter: CalendarFilter) =>
  filter.stages.includes('setAside') ? 'p.deleted_at is null and p.archived_at is null' : SHOWN;

/** What a query of the calendar asks for. */
export interface CalendarScope {
  brandIds: readonly string[];
  filter: CalendarFilter;
  today: LocalDate;
}

/** The posts planned from one day to another, both included, by day and time, at most `limit` (none by default). */
export function listPostsBetween(
  db: Queryable,
  scope: CalendarScope,
  from: LocalDate,
  to: LocalDate,
  limit?: number,
): Promise<PostLine[]> {
  const { where, parameters } = filterCondition(scope.filter, scope.today, 4);
  const order = 'p.plan_date, p.plan_time nulls last, p.id';
  return lines(
    db,
    `p.brand_id = any($1::uuid[]) and p.plan_date between $2 and $3 and ${shownWith(scope.filter)}${where}`,
    order,
    [scope.brandIds, from, to, ...parameters],
    limit === undefined ? '' : `order by ${order} limit ${limit}`,
  );
}

/** The newest posts without a date, at most `limit`. */
export function listUndatedPosts(db: Queryable, scope: CalendarScope, limit: number): Promise<PostLine[]> {
  const { where, parameters } = filterCondition(scope.filter, scope.today, 2);
  return lines(
    db,
    `p.brand_id = any($1::uuid[]) and p.plan_date is null and ${shownWith(scope.filter)}${where}`,
    'p.created_at desc, p.id',
    [scope.brandIds, ...parameters],
    `order by p.created_at desc, p.id limit ${limit}`,
  );
}

/** The posts at a stage from a day on, by day and time, those without a date last; at most `limit`. */
export function listPostsAtStage(
  db: Queryable,
  scope: CalendarScope,
  stage: Stage,
  from: LocalDate | null,
  limit: number,
): Promise<PostLine[]> {
  const { where, parameters } = filterCondition(scope.filter, scope.today, 4);
  const order = 'p.plan_date nulls last, p.plan_time nulls last, p.id';
  return lines(
    db,
    `p.brand_id = any($1::uuid[]) and p.stage = $2 and ($3::date is null or p.plan_date >= $3::date)
      and p.deleted_at is null and p.archived_at is null${where}`,
    order,
    [scope.brandIds, stage, from, ...parameters],
    `order by ${order} limit ${limit}`,
  );
}

/** How many posts stand at a stage from a day on, counted to `most` at most. */
export async function countPostsAtStage(
  db: Queryable,
  scope: CalendarScope,
  stage: Stage,
  from: LocalDate | null,
  most: number,
): Promise<number> {
  const { where, parameters } = filterCondition(scope.filter, scope.today, 4);
  const [row] = await db.rows<{ count: number }>(
    `select count(*)::int as count from (select 1 from posts p
       where p.brand_id = any($1::uuid[]) and p.stage = $2 and ($3::date is null or p.plan_date >= $3::date)
         and p.deleted_at is null and p.archived_at is null${where} limit ${most}) counted`,
    [scope.brandIds, stage, from, ...parameters],
  );
  return row!.count;
}

/** A post as far as openings and horizons ask about it. */
export interface PlannedPost {
  id: string;
  channelId: string;
  format: Format;
  date: LocalDate;
  time: LocalTime | null;
  stage: Stage;
  hasWords: boolean;
}

/** What is planned from one day to another, both included, for whole brands: what openings and horizons are paired with. */
export function listPlannedPosts(
  db: Queryable,
  brandIds: readonly string[],
  from: LocalDate,
  to: LocalDate,
): Promise<PlannedPost[]> {
  return manyRows<PlannedPost>(
    db,
    {
      id: 'p.id',
      channelId: 'p.channel_id',
      format: 'p.format',
      date: 'p.plan_date',
      time: timeText('p.plan_time'),
      stage: 'p.stage',
      hasWords: ownWords('p'),
    },
    `posts p where p.brand_id = any($1::uuid[]) and p.plan_date between $2 and $3 and ${SHOWN}`,
    [brandIds, from, to],
  );
}

/** Posts whose day passed before they were out, and that nobody has set aside. */
const MISSED = `p.brand_id = $1 and p.plan_date < $2 and p.deleted_at is null and p.archived_at is null
  and p.stage = any('{drafting,production,signOff,ready,scheduled}'::text[])`;

/** Those of a brand, the day that passed last first, at most `limit`. */
export function listMissedPosts(db: Queryable, brandId: string, today: LocalDate, limit: number): Promise<PostLine[]> {
  const order = 'p.plan_date desc, p.plan_time desc nulls last, p.id';
  return lines(db, MISSED, order, [brandId, today, limit], `order by ${order} limit $3`);
}

/**
 * How many posts of a brand are not out though their day passed, or have a delivery that a person has to look at. Those that wait to be
 * posted by hand are counted for themselves (`countDueByHand`).
 */
export async function countInTrouble(db: Queryable, brandId: string, today: LocalDate): Promise<number> {
  const [row] = await db.rows<{ count: number }>(
    `select (select count(*) from posts p where ${MISSED} and not exists (select 1 from deliveries h
         where h.post_id = p.id and h.mode = 'byHand' and h.state = 'waiting'))::int
       + (select count(*) from deliveries d join posts p on p.id = d.post_id
          where d.state in ('failed', 'held', 'unknown') and d.brand_id = $1 and p.stage = 'scheduled'
            and p.plan_date >= $2 and p.deleted_at is null)::int as count`,
    [brandId, today],
  );
  return row!.count;
}

/** Scheduled posts that wait though they had their time from an instant on. */
const OVERDUE = `p.brand_id = $1 and p.stage = 'scheduled' and p.deleted_at is null and p.id in (
  select o.post_id from deliveries o where o.brand_id = $1 and o.state = 'waiting' and o.due_at between $2 and $3)`;

/** Those of a brand from one instant to another, the first due first, at most `limit`. */
export function listOverduePosts(
  db: Queryable,
  brandId: string,
  from: Instant,
  to: Instant,
  limit: number,
): Promise<PostLine[]> {
  const order = 'p.plan_date, p.plan_time nulls last, p.id';
  return lines(db, OVERDUE, order, [brandId, from, to, limit], `order by ${order} limit $4`);
}

/** How many there are. */
export async function countOverduePosts(db: Queryable, brandId: string, from: Instant, to: Instant): Promise<number> {
  const [row] = await db.rows<{ count: number }>(`select count(*)::int as count from posts p where ${OVERDUE}`, [
    ...[brandId, from, to],
  ]);
  return row!.count;
}

/** The posts with these ids, as lines, in no order; on demand only those the calendar shows. */
export function listPostLines(
  db: Queryable,
  ids: readonly string[],
  options: { shown?: boolean } = {},
): Promise<PostLine[]> {
  return lines(db, `p.id = any($1::uuid[])${options.shown ? ` and ${SHOWN}` : ''}`, 'p.id', [ids]);
}

/** The posts of a piece that are not deleted, set aside ones included, by date. */
export function listPostsOfPiece(db: Queryable, pieceId: string): Promise<PostLine[]> {
  return lines(db, 'p.piece_id = $1 and p.deleted_at is null', 'p.plan_date nulls last, p.plan_time nulls last, p.id', [
    pieceId,
  ]);
}

/** The newest published posts of a piece, at most `limit`. */
export function listPublishedOfPiece(db: Queryable, pieceId: string, limit: number): Promise<PostLine[]> {
  return lines(
    db,
    `p.piece_id = $1 and p.deleted_at is null and p.stage = 'published'`,
    'p.published_at desc, p.id',
    [pieceId],
    `order by p.published_at desc, p.id limit ${limit}`,
  );
}

/**
 * Every post that a filter lets through, dated or not, by date, so many at once: which they are is settled by the first
 * query, and other queries go between the parts. One that goes away meanwhile is left out.
 *
 * @param limit how many posts at most
 */
export async function* partsOfAllPosts(
  db: Queryable,
  scope: CalendarScope,
  limit: number,
  atOnce = POSTS_AT_ONCE,
): AsyncGenerator<PostLine[]> {
  const { where, parameters } = filterCondition(scope.filter, scope.today, 2);
  const found = await db.rows<{ id: string }>(
    `select p.id from posts p where p.brand_id = any($1::uuid[]) and ${shownWith(scope.filter)}${where}
     order by p.plan_date nulls last, p.plan_time nulls last, p.id limit ${limit}`,
    [scope.brandIds, ...parameters],
  );
  for (let from = 0; from < found.length; from += atOnce) {
    const ids = found.slice(from, from + atOnce).map(({ id }) => id);
    const order = 'array_position($1::uuid[], p.id)';
    yield await lines(db, 'p.id = any($1::uuid[]) and p.deleted_at is null', order, [ids]);
  }
}

/** Posts of one part: some tens of milliseconds of the database. */
const POSTS_AT_ONCE = 1_000;
