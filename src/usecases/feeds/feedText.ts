import { setImmediate } from 'node:timers/promises';
import type { ICalEventData } from 'ical-generator';
import { calendarParts } from '@/core/exchange/calendarParts';
import { postEvent, stepEvent } from '@/core/exchange/postEvent';
import { addDays } from '@/core/time/days';
import { addMs, localOf, type Instant } from '@/core/time/plan';
import { listBrands, oneBrand } from '@/data/brands/brands';
import { listChannelsOf } from '@/data/brands/channels';
import { listPostsOfFeed, listStepsOfFeed, maybeFeed, noteFeedUsed, type Feed } from '@/data/feeds/feeds';
import { maybeActor } from '@/data/people/people';
import { listPostLines } from '@/data/posts/postLines';
import { hashOfKey } from '@/data/signIn/keys';
import { datedPost } from '../exchange/exportPosts';
import type { Db, Work } from '../useCase';

/** Days before and after today that a feed gives. */
const DAYS = { before: 30, after: 365 } as const;
/** Entries that a feed gives, at most. */
const ENTRIES = 5_000;
/** Entries that are written in one go, some tens of milliseconds' work. */
const AT_ONCE = 100;
/** How often it is written down that a feed was read, in milliseconds. */
const NOTED_EVERY_MS = 600_000;

/**
 * The feed of a key as iCalendar (RFC 5545), the same as long as nothing in it changes; null where the key is of none, or of
 * somebody who is gone or does not work for its brand any more.
 */
export async function readFeed({ db, clock }: Pick<Work, 'db' | 'clock'>, key: string): Promise<string | null> {
  const feed = await maybeFeed(db, hashOfKey(key));
  const actor = feed && (await maybeActor(db, feed.personId));
  if (!feed || !actor || (feed.brandId !== null && !actor.brandIds.includes(feed.brandId))) return null;
  const now = clock.now();
  if (feed.usedAt === null || addMs(feed.usedAt, NOTED_EVERY_MS) <= now) await noteFeedUsed(db, feed.id, now);
  const brandIds = feed.brandId === null ? actor.brandIds : [feed.brandId];
  const name = feed.brandId === null ? 'yours' : (await oneBrand(db, feed.brandId)).name;
  const { head, part, end } = calendarParts(`Bimlo: ${name}`);
  const events = await feedEvents(db, feed, brandIds, now);
  let text = head;
  for (let from = 0; from < events.length; from += AT_ONCE) {
    text += part(events.slice(from, from + AT_ONCE));
    // What is to leave meanwhile leaves on its minute.
    await setImmediate();
  }
  return text + end;
}

/**
 * What a feed gives.
 *
 * @internal
 */
export async function feedEvents(
  db: Db,
  feed: Feed,
  brandIds: readonly string[],
  now: Instant,
): Promise<ICalEventData[]> {
  const brands = new Map((await listBrands(db)).map((brand) => [brand.id, brand]));
  const today = localOf(now, brands.get(brandIds[0] ?? '')?.zone ?? 'UTC').date;
  const [from, to] = [addDays(today, -DAYS.before), addDays(today, DAYS.after)];
  const isOwn = feed.brandId === null;
  const [listed, channels, steps] = await Promise.all([
    listPostsOfFeed(db, { brandIds, ownerId: isOwn ? feed.personId : null }, from, to, ENTRIES),
    listChannelsOf(db, brandIds, { archived: true }),
    isOwn ? listStepsOfFeed(db, feed.personId, brandIds, from, to, ENTRIES) : [],
  ]);
  const isOff = new Map(listed.map(({ id, isOff: off }) => [id, off]));
  const channelOf = new Map(channels.map((channel) => [channel.id, channel]));
  const lines = await listPostLines(
    db,
    listed.map(({ id }) => id),
  );
  const posts = lines.flatMap((line) => {
    const zone = brands.get(line.brandId)?.zone;
    if (line.date === null || zone === undefined) return [];
    const post = datedPost({ ...line, date: line.date }, channelOf.get(line.channelId), zone, isOff.get(line.id));
    return [postEvent(post, feed.madeAt)];
  });
  return [...posts, ...steps.map((step) => stepEvent(step, feed.madeAt))].slice(0, ENTRIES);
}
