import { compareText } from '../compareText';
import type { LocalDate, LocalTime } from '../time/plan';

/** A post as far as its place in a day depends on it. */
export interface Placed {
  id: string;
  date: LocalDate | null;
  time: LocalTime | null;
  callSign: string;
}

/** Order within a day: by time, those without a time last, then by call sign, then by id so that it never wavers. */
export function byTimeOfDay(a: Placed, b: Placed): number {
  return (
    compareText(a.time ?? '99:99', b.time ?? '99:99') || compareText(a.callSign, b.callSign) || compareText(a.id, b.id)
  );
}

/** The dated posts of each day, in the order of the day. Days without posts have no entry. */
export function groupByDay<P extends Placed>(posts: readonly P[]): Map<LocalDate, P[]> {
  const days = new Map<LocalDate, P[]>();
  for (const post of posts) {
    if (post.date === null) continue;
    const day = days.get(post.date);
    if (day) day.push(post);
    else days.set(post.date, [post]);
  }
  for (const day of days.values()) day.sort(byTimeOfDay);
  return days;
}
