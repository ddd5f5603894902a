import type { LocalDate, LocalTime } from './plan';

// Days on a calendar have neither zone nor clock changes, so plain UTC arithmetic is exact for them, and it is light enough
// for the browser. Instants and zones are in plan.ts.

const DAY_MS = 86_400_000;

/** Days from 1 January 1970 to a date. */
export const dayNumber = (date: LocalDate): number =>
  Date.UTC(Number(date.slice(0, 4)), Number(date.slice(5, 7)) - 1, Number(date.slice(8, 10))) / DAY_MS;

/** The date so many days from 1 January 1970. */
export const dateOf = (day: number): LocalDate => new Date(day * DAY_MS).toISOString().slice(0, 10);

/** The weekday of a day number, 1 for Monday to 7 for Sunday (ISO 8601). 1 January 1970 was a Thursday. */
export const weekdayOfDay = (day: number): number => ((((day + 3) % 7) + 7) % 7) + 1;

/** The date `days` later (earlier when negative). Dates from year 1 to 9999. */
export const addDays = (date: LocalDate, days: number): LocalDate => dateOf(dayNumber(date) + days);

/** Whole days from the first date to the second; negative when the second is earlier. */
export const daysBetween = (from: LocalDate, to: LocalDate): number => dayNumber(to) - dayNumber(from);

/** The weekday, 1 for Monday to 7 for Sunday (ISO 8601). */
export const weekdayOf = (date: LocalDate): number => weekdayOfDay(dayNumber(date));

/** The first day of the week that holds a date. `weekStart` is 1 for Monday to 7 for Sunday. */
export const startOfWeek = (date: LocalDate, weekStart: number): LocalDate =>
  addDays(date, -((weekdayOf(date) - weekStart + 7) % 7));

/** The ISO 8601 week number of a date: week 1 holds the year's first Thursday. */
export function weekNumber(date: LocalDate): number {
  const thursday = addDays(date, 4 - weekdayOf(date));
  return Math.floor(daysBetween(`${thursday.slice(0, 4)}-01-01`, thursday) / 7) + 1;
}

/** Minutes from midnight of a time of day, 0 to 1439. */
export const minutesOf = (time: LocalTime): number => Number(time.slice(0, 2)) * 60 + Number(time.slice(3, 5));

/** The last minute of a day, counted from midnight. */
export const LAST_MINUTE = 1439;

/** The time of day so many minutes after midnight. @throws RangeError for what is no whole number from 0 to 1439 */
export function timeOf(minutes: number): LocalTime {
  if (!Number.isInteger(minutes) || minutes < 0 || minutes > LAST_MINUTE)
    throw new RangeError(`no minute of a day: ${minutes}`);
  return `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;
}
