import { compareText } from '../compareText';
import { groupBy } from '../group';
import type { Format } from '../rulesheets/types';
import { daysBetween, LAST_MINUTE, minutesOf, timeOf, weekdayOf } from '../time/days';
import type { LocalDate, LocalTime } from '../time/plan';

/** A post that was really published. */
export interface Practised {
  date: LocalDate;
  time: LocalTime | null;
  format: Format;
}

/** A weekly habit found in what was done. */
export interface Habit {
  weekday: number;
  time: LocalTime;
  /** The format of nearly all of them; null when they differ. */
  format: Format | null;
  /** How many of the weeks had it. */
  weeks: number;
}

/** Minutes by which two times of one habit may differ. */
const NEAR_MINUTES = 45;
/** A habit is what was done in at least this share of the weeks. */
const HABIT_SHARE = 0.5;
/** A format is the habit's own when at least this share of its posts had it. */
const FORMAT_SHARE = 0.8;

/**
 * Proposes a weekly rhythm from what was done: posts of the same weekday whose times lie near one another make a habit where
 * at least half of the weeks looked at had one. Its time is the median, to five minutes.
 *
 * @param since first day looked at; the weeks are counted from it to `until`, which is not included
 */
export function proposeRhythm(posts: readonly Practised[], since: LocalDate, until: LocalDate): Habit[] {
  const weeks = Math.max(1, Math.floor(daysBetween(since, until) / 7));
  const timed = posts.flatMap((post) =>
    post.time !== null && post.date >= since && post.date < until ? [{ ...post, minutes: minutesOf(post.time) }] : [],
  );
  const habits: Habit[] = [];
  for (const [weekday, ofDay] of groupBy(timed, (post) => weekdayOf(post.date))) {
    ofDay.sort((a, b) => a.minutes - b.minutes);
    let cluster: typeof ofDay = [];
    const close = () => {
      // Of one weekday, as many days as weeks.
      const inWeeks = new Set(cluster.map(({ date }) => date)).size;
      if (inWeeks >= Math.max(2, weeks * HABIT_SHARE)) {
        const median = cluster[Math.floor((cluster.length - 1) / 2)]!.minutes;
        const [format, alike] = [...groupBy(cluster, (post) => post.format)].sort(
          (a, b) => b[1].length - a[1].length,
        )[0]!;
        habits.push({
          weekday,
          time: timeOf(Math.min(Math.round(median / 5) * 5, LAST_MINUTE)),
          format: alike.length >= cluster.length * FORMAT_SHARE ? format : null,
          weeks: inWeeks,
        });
      }
      cluster = [];
    };
    for (const post of ofDay) {
      if (cluster.length > 0 && post.minutes - cluster.at(-1)!.minutes > NEAR_MINUTES) close();
      cluster.push(post);
    }
    close();
  }
  return habits.sort((a, b) => a.weekday - b.weekday || compareText(a.time, b.time));
}
