import { accept, refuse, type Result } from '../refusal';
import type { DaySpan } from '../rhythm/entry';
import { dayNumber, weekdayOfDay } from '../time/days';

/** When somebody works: weekdays (1 for Monday to 7 for Sunday) and the days off among them. */
export interface WorkCalendar {
  weekdays: readonly number[];
  daysOff: readonly DaySpan[];
}

/** Weekdays worked on until somebody says otherwise. */
export const USUAL_WEEKDAYS: readonly number[] = [1, 2, 3, 4, 5];

/** Weekdays somebody works on: each once, in order. Refused: none, or what is no weekday. */
export function readWeekdays(weekdays: readonly number[]): Result<number[]> {
  const read = [...new Set(weekdays)].sort((a, b) => a - b);
  if (read.length === 0 || read.some((day) => !Number.isInteger(day) || day < 1 || day > 7))
    return refuse('badWeekdays', 'Choose at least one weekday to work on.', 'weekdays');
  return accept(read);
}

/** Days looked at for the next working day before it is given up: more than a year without one is no working time. */
const PATIENCE_DAYS = 400;

/** Whether a day (as a day number) is worked on. */
export function workedOn(calendar: WorkCalendar): (day: number) => boolean {
  const weekdays = new Set(calendar.weekdays);
  const off = calendar.daysOff.map(({ from, to }) => [dayNumber(from), dayNumber(to)] as const);
  return (day) => weekdays.has(weekdayOfDay(day)) && !off.some(([from, to]) => day >= from && day <= to);
}

/** The last working day at or before a day; the day itself where there is none within a year. */
export function workdayAtOrBefore(day: number, isWorked: (day: number) => boolean): number {
  for (let back = 0; back < PATIENCE_DAYS; back++) if (isWorked(day - back)) return day - back;
  return day;
}

/**
 * The working day `lead` working days before a day, or after it where `lead` is negative. With 0, the last working day at or
 * before it. Where somebody never works, calendar days are counted.
 */
export function countWorkdays(day: number, lead: number, isWorked: (day: number) => boolean): number {
  if (lead === 0) return workdayAtOrBefore(day, isWorked);
  const step = lead > 0 ? -1 : 1;
  let left = Math.abs(lead);
  let idle = 0;
  for (let at = day + step; ; at += step) {
    if (isWorked(at)) {
      left--;
      idle = 0;
      if (left === 0) return at;
    } else if (++idle > PATIENCE_DAYS) return day - lead;
  }
}
