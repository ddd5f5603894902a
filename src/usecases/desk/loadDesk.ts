import type { Slip } from '@/core/calendar/slip';
import { NEAR_DAYS, NO_FILTER } from '@/core/calendar/filter';
import type { Fitness } from '@/core/delivery/departure';
import { gapsByNeed, GAP_DAYS } from '@/core/rhythm/gaps';
import type { Horizon } from '@/core/rhythm/horizon';
import type { Opening } from '@/core/rhythm/openings';
import type { Stage } from '@/core/stages/stages';
import { addDays, startOfWeek } from '@/core/time/days';
import { localOf, type Instant, type LocalDate } from '@/core/time/plan';
import type { Brand } from '@/data/brands/brands';
import type { Channel } from '@/data/brands/channels';
import type { Db } from '@/data/database/db';
import { listIdeas, type Piece } from '@/data/pieces/pieces';
import { listPostsBetween } from '@/data/posts/postLines';
import { loadHorizons } from '../calendar/loadCalendar';
import { slipsOf } from '../posts/loadPosts';
import { loadDepartures, type Departure } from '../delivery/loadDepartures';

/** The first desk: today, this week, and what is missing ahead. */
export interface DeskView {
  /** What is not out though its day passed, or that a person has to look at. */
  inTrouble: Departure[];
  /** What leaves today and tomorrow. */
  leaves: Departure[];
  /** Posts of this week: all, those already out, those in trouble, and those ready or scheduled otherwise. */
  week: { all: number; out: number; notSent: number; ready: number };
  /** Planned within the next days and not ready. */
  near: Slip[];
  horizons: Horizon[];
  /** Unfilled openings of the next two weeks, most needed first. */
  gaps: Opening[];
  /** Ideas, with the channels they are suggested for. */
  ideas: Pick<Piece, 'id' | 'title' | 'suggestedChannelIds'>[];
}

/** Ideas that openings are offered, at most. */
const IDEAS = 200;

const isInTrouble = ({ slip, fitness }: Departure, today: LocalDate): boolean =>
  slip.date! < today || TROUBLE.includes(fitness);

/** How a departure stands that goes no further by itself. */
const TROUBLE: readonly Fitness[] = ['failed', 'held', 'unknown'];

const READY: readonly Stage[] = ['ready', 'scheduled'];

/** Reads a brand's desk. */
export async function loadDesk(db: Db, brand: Brand, channels: readonly Channel[], now: Instant): Promise<DeskView> {
  const local = localOf(now, brand.zone);
  const today = local.date;
  const scope = { brandIds: [brand.id], filter: NO_FILTER, today };
  const monday = startOfWeek(today, brand.weekStart);
  const nearEnd = addDays(today, NEAR_DAYS - 1);
  const last = [addDays(monday, 6), nearEnd].sort().at(-1)!;
  const [departures, posts, ahead, ideas] = await Promise.all([
    loadDepartures(db, brand, now),
    listPostsBetween(db, scope, monday, last),
    loadHorizons(db, brand, channels, now),
    listIdeas(db, [brand.id], IDEAS),
  ]);
  const slips = slipsOf(posts, channels);
  const week = slips.filter((slip) => slip.date! <= addDays(monday, 6));
  const aims = new Map(channels.map(({ id, aimDays }) => [id, aimDays]));
  const known = ahead.openings.filter(({ channelId, date }) => aims.has(channelId) && date < addDays(today, GAP_DAYS));
  const inTrouble = departures.filter((one) => isInTrouble(one, today));
  const stuck = new Set(inTrouble.map(({ slip }) => slip.id));
  return {
    inTrouble,
    leaves: departures.filter((one) => one.slip.date! <= addDays(today, 1) && !isInTrouble(one, today)),
    week: {
      all: week.length,
      out: week.filter(({ stage }) => stage === 'published').length,
      notSent: week.filter(({ id }) => stuck.has(id)).length,
      ready: week.filter(({ id, stage }) => READY.includes(stage) && !stuck.has(id)).length,
    },
    near: slips.filter(
      ({ date, stage }) => date! >= today && date! <= nearEnd && stage !== 'published' && !READY.includes(stage),
    ),
    horizons: ahead.horizons,
    ideas: ideas.map(({ id, title, suggestedChannelIds }) => ({ id, title, suggestedChannelIds })),
    gaps: gapsByNeed(known, ahead.planned, (id) => aims.get(id)!, local),
  };
}
