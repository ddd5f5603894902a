import { compareText } from '../compareText';
import { addDays, daysBetween } from '../time/days';
import type { Stage } from '../stages/stages';
import type { LocalDate } from '../time/plan';
import { fillOpenings, type Candidate, type LocalNow, type Place } from './fill';

/** Days the horizon looks ahead, today included. */
export const HORIZON_DAYS = 90;
/** Days a channel should be filled ahead where nothing else was said. */
export const DEFAULT_AIM_DAYS = 14;

/** How far ahead a channel is filled without an empty opening. */
export type Reach =
  /** No opening is asked for at all. */
  | { kind: 'noRhythm' }
  /** None is asked for in the days looked at; the next one lies further on. */
  | { kind: 'noneUntil'; date: LocalDate }
  /** An opening of today, still to come, is not filled. `gap` is its key. */
  | { kind: 'gapToday'; days: 0; gap: string }
  /** Filled through `to`; `days` counts from today on, so that today alone is 1. `gap` is the first opening not filled, null for none. */
  | { kind: 'filledTo'; to: LocalDate; days: number; gap: string | null };

/** Both horizons of a channel, and its aim in days. */
export interface Horizon {
  channelId: string;
  planned: Reach;
  solid: Reach;
  aimDays: number;
}

/**
 * A post as far as horizons depend on it.
 *
 * @internal
 */
export interface HorizonPost extends Candidate {
  stage: Stage;
  /** Without words it counts for no horizon. */
  hasWords: boolean;
}

const SOLID: readonly Stage[] = ['ready', 'scheduled', 'published'];

/**
 * The horizon of one channel.
 * - *planned* goes by every dated live post that has words;
 * - *solid* pairs anew among those that are ready, scheduled or published, so that a ready post may stand in for a draft.
 *
 * @param openings of the channel, from today for at least `HORIZON_DAYS`; an opening earlier today counts no more, though
 *   a post may fill it
 * @param posts of the channel, live ones
 * @param next the day of the next opening beyond those, where there is none among them; null where there is none at all
 */
export function horizonOf(
  channel: { id: string; aimDays: number },
  openings: readonly Place[],
  posts: readonly HorizonPost[],
  now: LocalNow,
  next: LocalDate | null = null,
): Horizon {
  const written = posts.filter((post) => post.hasWords && post.stage !== 'setAside');
  return {
    channelId: channel.id,
    planned: reachOf(openings, written, now, next),
    solid: reachOf(
      openings,
      written.filter((post) => SOLID.includes(post.stage)),
      now,
      next,
    ),
    aimDays: channel.aimDays,
  };
}

/**
 * How far the openings are filled by these posts. The openings in any order.
 *
 * @internal
 */
export function reachOf(
  openings: readonly Place[],
  posts: readonly Candidate[],
  now: LocalNow,
  next: LocalDate | null = null,
): Reach {
  const end = addDays(now.date, HORIZON_DAYS - 1);
  const inReach = openings.filter((opening) => opening.date >= now.date && opening.date <= end);
  const ahead = inReach
    .filter((opening) => opening.date > now.date || opening.time >= now.time)
    .sort((a, b) => compareText(a.date + a.time, b.date + b.time));
  if (ahead.length === 0) return next === null ? { kind: 'noRhythm' } : { kind: 'noneUntil', date: next };
  const { filledBy } = fillOpenings(inReach, posts, now);
  const gap = ahead.find((opening) => !filledBy.has(opening.key));
  if (!gap) return { kind: 'filledTo', to: end, days: HORIZON_DAYS, gap: null };
  if (gap.date === now.date) return { kind: 'gapToday', days: 0, gap: gap.key };
  return {
    kind: 'filledTo',
    to: addDays(gap.date, -1),
    days: daysBetween(now.date, gap.date),
    gap: gap.key,
  };
}

/** Days of a reach: 0 for an opening today, null without one in the days looked at. */
export const daysOf = (reach: Reach): number | null => ('days' in reach ? reach.days : null);
