import { carryOver } from '@/core/rhythm/carryOver';
import { addDays } from '@/core/time/days';
import { localOf, type Instant, type LocalDate, type LocalTime } from '@/core/time/plan';
import { oneBrand } from '@/data/brands/brands';
import { listMissedPosts } from '@/data/posts/postLines';
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
  const { date: today } = localOf(now, brand.zone);
  const missed = await listMissedPosts(db, brand.id, today, MOST_MISSED);
  const [openings, rhythms] = await Promise.all([
    loadNextOpenings(db, brand, now, missed.length),
    listRhythms(db, [brand.id]),
  ]);
  const places = carryOver(
    missed.map((post) => ({ ...post, date: post.date! })),
    openings,
    {
      tomorrow: addDays(today, 1),
      rhythmic: new Set(rhythms.flatMap(({ channelId, entries }) => (entries.length > 0 ? [channelId] : []))),
    },
  );
  const byId = new Map(missed.map((post) => [post.id, post]));
  return places.map(({ id, to }) => {
    const { version, channelId, title, date, time } = byId.get(id)!;
    return { id, version, channelId, title, was: { date: date!, time }, to };
  });
}
