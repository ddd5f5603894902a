import ical from 'ical-generator';
import type { CalendarFilter } from '@/core/calendar/filter';
import { COLUMNS } from '@/core/exchange/columns';
import { writeCsv } from '@/core/exchange/csvText';
import { addDays } from '@/core/time/days';
import { dueInstant, localOf, type Instant } from '@/core/time/plan';
import type { Brand } from '@/data/brands';
import { listChannelsById } from '@/data/channels';
import type { Db } from '@/data/db';
import { listPeopleOfBrand } from '@/data/people';
import { listPieceTitles } from '@/data/pieces';
import { listAllPosts, type PostLine } from '@/data/postLines';
import { listCampaigns, listPillars } from '@/data/themes';

/** Posts that one file holds. */
export const TAKE_OUT_LIMIT = 50_000;

/** The posts of a brand as CSV, one row a post, by date; what comes in again from it changes nothing. */
export async function postsAsCsv(db: Db, brand: Brand, filter: CalendarFilter, now: Instant): Promise<string> {
  const posts = await postsOf(db, brand, filter, now);
  const [titles, people, pillars, campaigns, channels] = await Promise.all([
    listPieceTitles(
      db,
      posts.map((post) => post.pieceId),
    ),
    listPeopleOfBrand(db, brand.id),
    listPillars(db, [brand.id], { archived: true }),
    listCampaigns(db, [brand.id], { archived: true }),
    channelsOf(db, posts),
  ]);
  const nameIn = (list: readonly { id: string; name: string }[], id: string | null) =>
    list.find((item) => item.id === id)?.name ?? '';
  const rows = posts.map((post): string[] => {
    const cells: Record<(typeof COLUMNS)[number], string> = {
      id: post.id,
      piece: titles[post.pieceId] ?? '',
      title: post.title,
      channel: channels.get(post.channelId)?.callSign ?? '',
      format: post.format,
      date: post.date ?? '',
      time: post.time ?? '',
      zone: brand.zone,
      stage: post.stage,
      headline: post.headline,
      caption: post.caption,
      hashtags: post.hashtags,
      link: post.link,
      owner: nameIn(people, post.ownerId),
      pillar: nameIn(pillars, post.pillarId),
      campaign: nameIn(campaigns, post.campaignId),
    };
    return COLUMNS.map((column) => cells[column]);
  });
  return writeCsv(COLUMNS, rows);
}

/**
 * The dated posts of a brand as iCalendar: an event for each, with the post's id as UID, at its instant; whole days for
 * posts without a time.
 */
export async function postsAsCalendar(db: Db, brand: Brand, filter: CalendarFilter, now: Instant): Promise<string> {
  const posts = (await postsOf(db, brand, filter, now)).filter((post) => post.date !== null);
  const channels = await channelsOf(db, posts);
  const calendar = ical({ name: `${brand.name}: posts`, prodId: { company: 'Bimlo', product: 'Bimlo' } });
  for (const post of posts) {
    const due = post.time ? dueInstant(post.date!, post.time, brand.zone) : null;
    const summary = `${channels.get(post.channelId)?.callSign ?? ''} · ${post.title}`;
    const shared = { id: `${post.id}@bimlo`, stamp: new Date(now), summary, description: post.caption };
    if (due?.ok) calendar.createEvent({ ...shared, start: new Date(due.value), end: new Date(due.value) });
    else
      calendar.createEvent({
        ...shared,
        start: new Date(`${post.date}T00:00:00Z`),
        end: new Date(`${addDays(post.date!, 1)}T00:00:00Z`),
        allDay: true,
        timezone: 'UTC',
      });
  }
  return calendar.toString();
}

async function postsOf(db: Db, brand: Brand, filter: CalendarFilter, now: Instant): Promise<PostLine[]> {
  const scope = { brandIds: [brand.id], filter, today: localOf(now, brand.zone).date };
  return listAllPosts(db, scope, TAKE_OUT_LIMIT);
}

async function channelsOf(db: Db, posts: readonly PostLine[]) {
  const channels = await listChannelsById(db, [...new Set(posts.map((post) => post.channelId))]);
  return new Map(channels.map((channel) => [channel.id, channel]));
}
