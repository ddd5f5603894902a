import { addDays } from '../time/days';
import type { LocalDate } from '../time/plan';
import type { Recurrence } from './entry';
import { fallsOn } from './openings';

/** Posts a series keeps ahead where nothing else was said. */
export const DEFAULT_AHEAD = 4;
/** Days looked ahead for the next rounds: the most that are kept ahead, of a series that comes round twice a year. */
const LOOK_AHEAD_DAYS = 26 * 27 * 7;

/** A series as far as its next rounds depend on it. */
interface SeriesRounds {
  recurrence: Recurrence;
  from: LocalDate;
  to: LocalDate | null;
}

/**
 * The next rounds of a series after a day, at most `count`; fewer where it ends before.
 *
 * @param after the day after which they lie: the last post's, or yesterday
 */
export function nextRounds(series: SeriesRounds, after: LocalDate, count: number): LocalDate[] {
  const rounds: LocalDate[] = [];
  const start = addDays(after, 1) > series.from ? addDays(after, 1) : series.from;
  for (let step = 0; step < LOOK_AHEAD_DAYS && rounds.length < count; step++) {
    const date = addDays(start, step);
    if (series.to !== null && date > series.to) break;
    if (fallsOn(series.recurrence, date, series.from)) rounds.push(date);
  }
  return rounds;
}

/** The working title of a post of a series: “Friday question 33”. */
export const roundTitle = (name: string, number: number): string => `${name} ${number}`;
