import { fillOpenings } from '@/core/rhythm/fill';
import { openingsBetween } from '@/core/rhythm/openings';
import type { Format } from '@/core/rulesheets/types';
import { addDays } from '@/core/time/days';
import { localOf, type Instant, type LocalDate, type LocalTime } from '@/core/time/plan';
import type { Brand } from '@/data/brands/brands';
import { listPlannedPosts } from '@/data/posts/postLines';
import { listRhythms } from '@/data/rhythm/rhythms';
import type { Db } from '../useCase';

/** Days ahead in which openings are looked for. */
const AHEAD_DAYS = 60;

/** A place in a channel's rhythm that nothing fills yet. */
export interface NextOpening {
  channelId: string;
  date: LocalDate;
  time: LocalTime;
  /** Null for any. */
  format: Format | null;
  pillarId: string | null;
}

/** The next unfilled openings of each channel of a brand, at most `each`, in the order of time. */
export async function loadNextOpenings(db: Db, brand: Brand, now: Instant, each = 3): Promise<NextOpening[]> {
  const local = localOf(now, brand.zone);
  const until = addDays(local.date, AHEAD_DAYS);
  const [rhythms, planned] = await Promise.all([
    listRhythms(db, [brand.id]),
    listPlannedPosts(db, [brand.id], local.date, until),
  ]);
  const openings = rhythms.flatMap((rhythm) => openingsBetween(rhythm, local.date, until, brand.zone));
  const { filledBy } = fillOpenings(openings, planned, local);
  const counts = new Map<string, number>();
  return openings
    .filter(({ key, date, time }) => !filledBy.has(key) && (date > local.date || time > local.time))
    .sort((one, other) => (one.date + one.time < other.date + other.time ? -1 : 1))
    .filter(({ channelId }) => {
      const count = (counts.get(channelId) ?? 0) + 1;
      counts.set(channelId, count);
      return count <= each;
    })
    .map(({ channelId, date, time, format, pillarId }) => ({ channelId, date, time, format, pillarId }));
}
