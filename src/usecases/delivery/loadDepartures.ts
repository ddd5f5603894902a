import { localOf, type Instant, type LocalDate } from '@/core/time/plan';
import { slipOf, type Slip } from '@/core/calendar/slip';
import { NO_FILTER } from '@/core/calendar/filter';
import type { Parcel, ParcelPicture } from '@/core/delivery/network';
import { fitnessOf, type Fitness } from '@/core/delivery/departure';
import {
  daysOfView,
  sortOf,
  stagesOfView,
  type DepartureSort,
  type Sender,
  type TimetableView,
} from '@/core/delivery/timetable';
import { blocksOf } from '@/core/posts/readiness';
import type { Db } from '@/data/database/db';
import { type Brand } from '@/data/brands/brands';
import { listChannels, listChannelsOf, type Channel } from '@/data/brands/channels';
import { maybeBrandHold } from '@/data/delivery/brandHolds';
import { listPostLines, listPostsBetween, listMissedPosts, type PostLine } from '@/data/posts/postLines';

/** A line of the timetable. */
export interface Departure {
  slip: Slip;
  fitness: Fitness;
  /** Who sends it, or would. */
  sender: Sender;
  /** The reason why it is not fit, or the network's words; empty when there is none. */
  reason: string;
  /** When it is tried next. */
  nextTryAt: Instant | null;
  attempts: number;
  /** Whether its network goes on being asked whether it is out. */
  isAsked: boolean;
  publishedAt: Instant | null;
  address: string;
  /** What the person needs who posts it by hand; null for the others. */
  handOver: { texts: { label: string; text: string }[]; pictures: ParcelPicture[] } | null;
}

/** Posts whose day passed that are shown at most, the last ones. */
export const MOST_MISSED = 200;
/** What of the timetable is asked for. */
export interface TimetableAsk {
  view: TimetableView;
  /** A day of the stretch that shows. */
  at: LocalDate;
  /** Ids of channels; empty for all. */
  channels: string[];
  /** Null for either. */
  sender: Sender | null;
  /** Null for all. */
  sort: DepartureSort | null;
}

/** A stretch of the timetable. */
export interface Timetable {
  from: LocalDate;
  to: LocalDate;
  /** What is not out though its day passed, scheduled or not, until somebody deals with it; the earliest first. */
  missed: Departure[];
  /** The days from `from` to `to`, without what is missed. */
  lines: Departure[];
}

/** The timetable of a brand as it is asked for. */
export async function loadTimetable(
  db: Db,
  brand: Brand,
  now: Instant,
  { view, at, channels: asked, sender, sort }: TimetableAsk,
): Promise<Timetable> {
  const today = localOf(now, brand.zone).date;
  const { from, to } = daysOfView(view, at, brand.weekStart);
  const filter = { ...NO_FILTER, channels: asked, stages: stagesOfView(view) };
  const [channels, posts, missedPosts, hold] = await Promise.all([
    listChannels(db, brand.id),
    listPostsBetween(db, { brandIds: [brand.id], filter, today }, from, to),
    listMissedPosts(db, brand.id, today, MOST_MISSED),
    maybeBrandHold(db, brand.id),
  ]);
  const byId = new Map(channels.map((channel) => [channel.id, channel]));
  const departures = (lines: readonly PostLine[]) =>
    lines
      .flatMap((post) => {
        const channel = byId.get(post.channelId);
        return channel ? [departureOf(post, channel, now, hold !== undefined)] : [];
      })
      .filter((one) => (sender === null || one.sender === sender) && (sort === null || sortOf(one.fitness) === sort));
  const isMissed = new Set(missedPosts.map(({ id }) => id));
  return {
    from,
    to,
    missed: departures(
      missedPosts.filter(({ channelId }) => asked.length === 0 || asked.includes(channelId)).reverse(),
    ),
    lines: departures(posts.filter(({ id }) => !isMissed.has(id))),
  };
}

/** The days to come of a brand, and before that what is not out though its day passed. */
export async function loadDepartures(db: Db, brand: Brand, now: Instant): Promise<Departure[]> {
  const at = localOf(now, brand.zone).date;
  const { missed, lines } = await loadTimetable(db, brand, now, {
    ...{ view: 'days', at, channels: [], sender: null, sort: null },
  });
  return [...missed, ...lines];
}

/** One post as a line of the timetable; null where the brand has none such. */
export async function loadDeparture(db: Db, brand: Brand, postId: string, now: Instant): Promise<Departure | null> {
  const [[post], channels, hold] = await Promise.all([
    listPostLines(db, [postId]),
    listChannelsOf(db, [brand.id], { archived: true }),
    maybeBrandHold(db, brand.id),
  ]);
  const channel = channels.find(({ id }) => id === post?.channelId);
  return post && channel ? departureOf(post, channel, now, hold !== undefined) : null;
}

function departureOf(post: PostLine, channel: Channel, now: Instant, isBrandHeld: boolean): Departure {
  const { delivery } = post;
  const blocks = blocksOf(post, channel.sheet);
  const mode = delivery?.mode ?? (channel.sheet.automatic ? 'automatic' : 'byHand');
  const fitness = fitnessOf(
    {
      stage: post.stage,
      mode,
      state: delivery?.state ?? null,
      unsure: delivery?.unsure ?? false,
      awaitsRelease: delivery?.awaitsRelease ?? false,
      isBrandHeld,
      attempts: delivery?.attempts ?? 0,
      dueAt: delivery?.dueAt ?? null,
      blocks,
    },
    now,
  );
  return {
    slip: slipOf(post, channel),
    fitness,
    sender: mode === 'byHand' ? 'byHand' : 'bimlo',
    reason: fitness === 'notFit' ? blocks[0]!.message : (delivery?.words ?? ''),
    nextTryAt: delivery?.nextTryAt ?? null,
    attempts: delivery?.attempts ?? 0,
    isAsked: delivery?.isAsked ?? false,
    publishedAt: post.publishedAt,
    address: post.address,
    handOver:
      delivery?.parcel && (fitness === 'handOver' || fitness === 'handOverToCome')
        ? handOverOf(delivery.parcel, channel)
        : null,
  };
}

function handOverOf(parcel: Parcel, channel: Channel): Departure['handOver'] {
  const label = (name: string) => channel.sheet.fields.find((field) => field.name === name)?.label ?? name;
  const texts = parcel.texts.filter(({ text }) => text !== '').map(({ name, text }) => ({ label: label(name), text }));
  const hashtags = parcel.hashtags.join(' ');
  return {
    // Some post them apart, below or in a field of their own.
    texts: hashtags === '' ? texts : [...texts, { label: 'Hashtags', text: hashtags }],
    pictures: parcel.pictures,
  };
}
