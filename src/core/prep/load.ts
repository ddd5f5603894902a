import { compareText } from '../compareText';
import { LAST_MINUTE, minutesOf, timeOf } from '../time/days';
import type { LocalDate, LocalTime } from '../time/plan';

/** What lies on somebody's day. */
export interface DayLoad {
  date: LocalDate;
  /** Minutes of the steps that day; those without a length count as `GUESS_MINUTES`. */
  minutes: number;
  steps: number;
  /** Minutes the person has that day: 0 on a day they do not work. */
  capacity: number;
  isTooMuch: boolean;
}

/** Taken for a step that nobody gave a length. */
export const GUESS_MINUTES = 15;

/** Adds the minutes of steps up by day. Days without steps are left out. */
export function loadByDay(
  steps: readonly { day: LocalDate; minutes: number | null }[],
  capacityOn: (date: LocalDate) => number,
): DayLoad[] {
  const days = new Map<LocalDate, { minutes: number; steps: number }>();
  for (const { day, minutes } of steps) {
    const sum = days.get(day) ?? { minutes: 0, steps: 0 };
    days.set(day, { minutes: sum.minutes + (minutes ?? GUESS_MINUTES), steps: sum.steps + 1 });
  }
  return [...days]
    .sort(([a], [b]) => compareText(a, b))
    .map(([date, sum]) => ({ date, ...sum, capacity: capacityOn(date), isTooMuch: sum.minutes > capacityOn(date) }));
}

/** Minutes of steps together, those without a length guessed. */
export const minutesTogether = (steps: readonly { minutes: number | null }[]): number =>
  steps.reduce((sum, { minutes }) => sum + (minutes ?? GUESS_MINUTES), 0);

/** When each of several steps begins that are done one after the other; never past the end of the day. */
export function beginnings(startsAt: LocalTime, steps: readonly { minutes: number | null }[]): LocalTime[] {
  let at = minutesOf(startsAt);
  return steps.map(({ minutes }) => {
    const begins = timeOf(Math.min(at, LAST_MINUTE));
    at += minutes ?? GUESS_MINUTES;
    return begins;
  });
}

/** Minutes as people say them: “45 min”, “1 h 30”, “6 h”. */
export function minutesWords(minutes: number): string {
  const [hours, rest] = [Math.floor(minutes / 60), minutes % 60];
  if (hours === 0) return `${rest} min`;
  return rest === 0 ? `${hours} h` : `${hours} h ${String(rest).padStart(2, '0')}`;
}
