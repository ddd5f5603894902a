import { addDays } from '@/core/time/days';
import { localOf, type Instant } from '@/core/time/plan';
import { slipOf, type Slip } from '@/core/calendar/slip';
import { NO_FILTER } from '@/core/calendar/filter';
import type { Parcel, ParcelPicture } from '@/core/delivery/network';
import { fitnessOf, type Fitness } from '@/core/delivery/departure';
import { blocksOf } from '@/core/posts/readiness';
import type { Db } from '@/data/database/db';
import { type Brand } from '@/data/brands/brands';
import { listChannels, type Channel } from '@/data/brands/channels';
import { listPostsBetween, listMissedPosts, type PostLine } from '@/data/posts/postLines';

/** A line of the timetable. */
export interface Departure {
  slip: Slip;
  fitness: Fitness;
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
const MOST_MISSED = 200;
/** Days the timetable looks ahead, today included. */
const DEPARTURE_DAYS = 8;

/**
 * The timetable of a brand: everything planned from today for a week, and before that what is not out though its day passed, scheduled
 * or not, until somebody deals with it.
 */
export async function loadDepartures(db: Db, brand: Brand, now: Instant): Promise<Departure[]> {
  const today = localOf(now, brand.zone).date;
  const [channels, coming, missed] = await Promise.all([
    listChannels(db, brand.id),
    listPostsBetween(db, { brandIds: [brand.id], filter: NO_FILTER, today }, today, addDays(today, DEPARTURE_DAYS - 1)),
    listMissedPosts(db, brand.id, today, MOST_MISSED),
  ]);
  const byId = new Map(channels.map((channel) => [channel.id, channel]));
  return [...missed.reverse(), ...coming].flatMap((post) => {
    const channel = byId.get(post.channelId);
    return channel ? [departureOf(post, channel, now)] : [];
  });
}

function departureOf(post: PostLine, channel: Channel, now: Instant): Departure {
  const { delivery } = post;
  const blocks = blocksOf(post, channel.sheet);
  const fitness = fitnessOf(
    {
      stage: post.stage,
      mode: delivery?.mode ?? (channel.sheet.automatic ? 'automatic' : 'byHand'),
      state: delivery?.state ?? null,
      unsure: delivery?.unsure ?? false,
      awaitsRelease: delivery?.awaitsRelease ?? false,
      attempts: delivery?.attempts ?? 0,
      dueAt: delivery?.dueAt ?? null,
      blocks,
    },
    now,
  );
  return {
    slip: slipOf(post, channel),
    fitness,
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
  return {
    texts: parcel.texts.filter(({ text }) => text !== '').map(({ name, text }) => ({ label: label(name), text })),
    pictures: parcel.pictures,
  };
}
