import type { CalendarFilter } from '@/core/calendar/filter';
import { calendarParts } from '@/core/exchange/calendarParts';
import { COLUMNS, type Column } from '@/core/exchange/columns';
import { writeCsvRows } from '@/core/exchange/csvText';
import { writeList, type ListColumn } from '@/core/exchange/lists';
import { postEvent, type DatedPost } from '@/core/exchange/postEvent';
import { ofEachText } from '@/core/posts/texts';
import { MEASURES, type Measure } from '@/core/results/engagement';
import { localOf, type Instant, type LocalDate, type Zone } from '@/core/time/plan';
import type { Brand } from '@/data/brands/brands';
import { listChannelsById, type Channel } from '@/data/brands/channels';
import type { Db } from '@/data/database/db';
import { listPeopleOfBrand } from '@/data/people/people';
import { listPieceTitles } from '@/data/pieces/pieces';
import { partsOfAllPosts, type PostLine } from '@/data/posts/postLines';
import { listPostsById } from '@/data/posts/posts';
import { latestReadings } from '@/data/results/readings';
import { listCampaigns, listPillars } from '@/data/brands/themes';
import { listsOf, readListings } from './listings';
import { textsOfPieces } from './textsOfPieces';

/** Posts that one file holds. */
const TAKE_OUT_LIMIT = 50_000;

const ALL_LISTS: ReadonlySet<ListColumn> = new Set(['media', 'steps', 'extracts']);

/** The posts of a brand as CSV, one row a post, by date, text by text; what comes in again from it changes nothing. */
export async function* postsAsCsv(db: Db, brand: Brand, filter: CalendarFilter, now: Instant): AsyncGenerator<string> {
  const [people, pillars, campaigns] = await Promise.all([
    listPeopleOfBrand(db, brand.id),
    listPillars(db, [brand.id], { archived: true }),
    listCampaigns(db, [brand.id], { archived: true }),
  ]);
  const nameIn = (list: readonly { id: string; name: string }[], id: string | null) =>
    list.find((item) => item.id === id)?.name ?? '';
  yield writeCsvRows([COLUMNS]);
  for await (const posts of partsOf(db, brand, filter, now)) {
    const ids = posts.map((post) => post.id);
    const [titles, channels, whole, numbers] = await Promise.all([
      listPieceTitles(
        db,
        posts.map((post) => post.pieceId),
      ),
      channelsOf(db, posts),
      listPostsById(db, ids).then((all) => new Map(all.map((post) => [post.id, post]))),
      latestReadings(db, ids),
    ]);
    const listings = await readListings(db, ids, ALL_LISTS, textsOfPieces(db));
    const rows = posts.map(({ id }): string[] => {
      const post = whole.get(id)!;
      const lists = listsOf(post, listings, (personId) => nameIn(people, personId));
      const cells: Record<Column, string> = {
        id: post.id,
        piece: titles[post.pieceId] ?? '',
        title: post.title,
        channel: channels.get(post.channelId)?.callSign ?? '',
        format: post.format,
        date: post.date ?? '',
        time: post.time ?? '',
        zone: brand.zone,
        stage: post.stage,
        ...ofEachText((_text, name) => post[name]),
        parts: writeList('parts', lists.parts),
        media: writeList('media', lists.media),
        steps: writeList('steps', lists.steps),
        extracts: writeList('extracts', lists.extracts),
        owner: nameIn(people, post.ownerId),
        pillar: nameIn(pillars, post.pillarId),
        campaign: nameIn(campaigns, post.campaignId),
        address: post.address,
        reason: post.setAsideReason,
        ...(Object.fromEntries(
          MEASURES.map((measure) => [measure, String(numbers.get(id)?.[measure] ?? '')]),
        ) as Record<Measure, string>),
      };
      return COLUMNS.map((column) => cells[column]);
    });
    yield writeCsvRows(rows);
  }
}

/**
 * The dated posts of a brand as iCalendar, text by text: an event for each, with the post's id as UID, at its instant; whole
 * days for posts without a time.
 */
export async function* postsAsCalendar(
  db: Db,
  brand: Brand,
  filter: CalendarFilter,
  now: Instant,
): AsyncGenerator<string> {
  const { head, part, end } = calendarParts(`${brand.name}: posts`);
  yield head;
  for await (const posts of partsOf(db, brand, filter, now)) {
    const channels = await channelsOf(db, posts);
    const events = posts.flatMap((post) => {
      const channel = channels.get(post.channelId);
      return post.date === null ? [] : [postEvent(datedPost({ ...post, date: post.date }, channel, brand.zone), now)];
    });
    yield part(events);
  }
  yield end;
}

/** A dated post as a calendar holds it. */
export function datedPost(
  post: PostLine & { date: LocalDate },
  channel: Channel | undefined,
  zone: Zone,
  isOff = false,
): DatedPost {
  const isByHand = post.delivery ? post.delivery.mode === 'byHand' : channel?.sheet.automatic === false;
  return {
    ...{ id: post.id, title: post.title, caption: post.caption, date: post.date, time: post.time, zone, isOff },
    callSign: channel?.callSign ?? '',
    version: post.version,
    leadMinutes: isByHand && post.stage !== 'published' ? (channel?.leadMinutes ?? 0) : null,
  };
}

function partsOf(db: Db, brand: Brand, filter: CalendarFilter, now: Instant): AsyncGenerator<PostLine[]> {
  const scope = { brandIds: [brand.id], filter, today: localOf(now, brand.zone).date };
  return partsOfAllPosts(db, scope, TAKE_OUT_LIMIT);
}

async function channelsOf(db: Db, posts: readonly PostLine[]) {
  const channels = await listChannelsById(db, [...new Set(posts.map((post) => post.channelId))]);
  return new Map(channels.map((channel) => [channel.id, channel]));
}
