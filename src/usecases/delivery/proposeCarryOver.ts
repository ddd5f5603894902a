import { carryOver, type CarriedTo } from '@/core/rhythm/carryOver';
import { addDays } from '@/core/time/days';
import { localOf, type Instant, type LocalDate, type LocalTime } from '@/core/time/plan';
import { oneBrand, type Brand } from '@/data/brands/brands';
import { listMissedPosts, type PostLine } from '@/data/posts/postLines';
import { listRhythms } from '@/data/rhythm/rhythms';
import { loadNextOpenings } from '../rhythm/nextOpenings';
import type { Db } from '../useCase';
import { MOST_MISSED } from './loadDepartures';

/** A post that was missed, with where it would go. */
export interface CarryOver {
  id: string;
  version: number;
  channelId: string;
  title: string;
  was: { date: LocalDate; time: LocalTime | null };
  /** Null where the rhythm of its channel has no place for it. */
  to: { date: LocalDate; time: LocalTime | null } | null;
}

/** Proposes where all goes that is not out though its day passed, in the order in which it was due. */
export async function proposeCarryOver(db: Db, brandId: string, now: Instant): Promise<CarryOver[]> {
  const brand = await oneBrand(db, brandId);
  const missed = await listMissedPosts(db, brandId, localOf(now, brand.zone).date, MOST_MISSED);
  const byId = new Map(missed.map((post) => [post.id, post]));
  return (await placesFor(db, brand, missed, now)).map(({ id, to }) => {
    const { version, channelId, title, date, time } = byId.get(id)!;
    return { id, version, channelId, title, was: { date: date!, time }, to };
  });
}

/** The next places of posts of a brand that had their time, in the order in which they were due. */
export async function placesFor(db: Db, brand: Brand, posts: readonly PostLine[], now: Instant): Promise<CarriedTo[]> {
  const [openings, rhythms] = await Promise.all([
    loadNextOpenings(db, brand, now, posts.length),
    listRhythms(db, [brand.id]),
  ]);
  return carryOver(
    posts.map((post) => ({ ...post, date: post.date! })),
    openings,
    {
      tomorrow: addDays(localOf(now, brand.zone).date, 1),
      rhythmic: new Set(rhythms.flatMap(({ channelId, entries }) => (entries.length > 0 ? [channelId] : []))),
    },
  );
}
