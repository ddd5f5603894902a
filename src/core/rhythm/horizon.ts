import { addDays, daysBetween } from '../time/days';
import type { Stage } from '../stages/stages';
import { type LocalDate, type LocalTime } from '../time/plan';
import { fillOpenings, type Candidate, type Place } from './fill';

/** Days the horizon looks ahead, today included. */
export const HORIZON_DAYS = 90;
/** Days a channel should be filled ahead where nothing else was said. */
export const DEFAULT_AIM_DAYS = 14;

/** How far ahead a channel is filled without an empty opening. */
export type Reach =
  /** No opening is asked for in the days looked at. */
  | { kind: 'noRhythm' }
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

/** A post as far as horizons depend on it. */
export interface HorizonPost extends Candidate {
  stage: Stage;
  /** Without words it counts for no horizon. */
  hasWords: boolean;
}

/** Now, on the wall of the brand's zone. */
export interface LocalNow {
  date: LocalDate;
  time: LocalTime;
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
 */
export function horizonOf(
  channel: { id: string; aimDays: number },
  openings: readonly Place[],
  posts: readonly HorizonPost[],
  now: LocalNow,
): Horizon {
  const written = posts.filter((post) => post.hasWords && post.stage !== 'setAside');
  return {
    channelId: channel.id,
    planned: reachOf(openings, written, now),
    solid: reachOf(
      openings,
      written.filter((post) => SOLID.includes(post.stage)),
      now,
    ),
    aimDays: channel.aimDays,
  };
}

/** How far the openings are filled by these posts. The openings in any order. */
export function reachOf(openings: readonly Place[], posts: readonly Candidate[], now: LocalNow): Reach {
  const end = addDays(now.date, HORIZON_DAYS - 1);
  const inReach = openings.filter((opening) => opening.date >= now.date && opening.date <= end);
  const ahead = inReach
    .filter((opening) => opening.date > now.date || opening.time >= now.time)
    .sort((a, b) => (a.date + a.time < b.date + b.time ? -1 : 1));
  if (ahead.length === 0) return { kind: 'noRhythm' };
  const { filledBy } = fillOpenings(inReach, posts);
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

/** Days of a reach: 0 for a opening today, null without a rhythm. */
export const daysOf = (reach: Reach): number | null => (reach.kind === 'noRhythm' ? null : reach.days);
