import { compareText } from '../compareText';
import { addDays, daysBetween } from '../time/days';
import { fillOpenings, type Candidate, type LocalNow, type Place } from './fill';

/** Days ahead in which gaps are named, today included. */
export const GAP_DAYS = 14;

/**
 * The openings of the next days that nothing fills, most needed first: by how soon they come against the channel's aim, so
 * that tomorrow's gap of a channel filled a week ahead weighs more than that of one filled four weeks ahead; equal ones by
 * date, time and channel.
 *
 * @param openings of all channels, from today on
 * @param posts live posts of these days that have words
 * @param aimOf the aim of a channel in days
 */
export function gapsByNeed<P extends Place>(
  openings: readonly P[],
  posts: readonly Candidate[],
  aimOf: (channelId: string) => number,
  now: LocalNow,
): P[] {
  const end = addDays(now.date, GAP_DAYS - 1);
  const near = openings.filter((opening) => opening.date >= now.date && opening.date <= end);
  const { filledBy } = fillOpenings(near, posts, now);
  const urgency = (opening: P): number => daysBetween(now.date, opening.date) / aimOf(opening.channelId);
  return near
    .filter((opening) => !filledBy.has(opening.key) && (opening.date > now.date || opening.time >= now.time))
    .sort(
      (a, b) =>
        urgency(a) - urgency(b) ||
        compareText(a.date + a.time, b.date + b.time) ||
        compareText(a.channelId, b.channelId) ||
        compareText(a.key, b.key),
    );
}
