import { compareText } from '../compareText';
import { addDays, daysBetween, weekdayOf } from '../time/days';
import { placePlan, type LocalDate, type LocalTime, type Zone } from '../time/plan';
import type { Format } from '../rulesheets/types';
import type { DaySpan, Recurrence, RhythmEntry } from './entry';

/** One dated place a rhythm asks for. */
export interface Opening {
  /** `entry id:date`: the same place keeps its key. */
  key: string;
  channelId: string;
  date: LocalDate;
  time: LocalTime;
  /** The end of its window; null where it asks for that very minute. */
  until: LocalTime | null;
  format: Format | null;
  theme: string;
  pillarId: string | null;
}

/** A channel's rhythm with the days that are left out of it: its own pauses, the brand's, and the brand's days off. */
export interface ChannelRhythm {
  channelId: string;
  entries: readonly RhythmEntry[];
  pauses: readonly DaySpan[];
}

/**
 * The openings of a channel from one day to another, both included, by day and time. Where the clock jumps over the time of
 * an entry, the opening stands at the next real time of that day.
 *
 * @param zone the brand's zone
 */
export function openingsBetween(rhythm: ChannelRhythm, from: LocalDate, to: LocalDate, zone: Zone): Opening[] {
  const openings: Opening[] = [];
  for (let date = from; date <= to; date = addDays(date, 1)) {
    if (rhythm.pauses.some((pause) => pause.from <= date && date <= pause.to)) continue;
    for (const entry of rhythm.entries) {
      if ((entry.from !== null && date < entry.from) || (entry.to !== null && date > entry.to)) continue;
      if (!fallsOn(entry.recurrence, date, entry.from)) continue;
      openings.push({
        key: `${entry.id}:${date}`,
        channelId: rhythm.channelId,
        date,
        time: realTime(date, entry.time, zone),
        until: entry.until ?? null,
        format: entry.format,
        theme: entry.theme,
        pillarId: entry.pillarId,
      });
    }
  }
  return openings.sort((a, b) => compareText(a.date + a.time, b.date + b.time) || compareText(a.key, b.key));
}

/** Days in which the next opening of a rhythm is looked for: one that comes once in 26 weeks, over a pause, lies within. */
const NEXT_WITHIN_DAYS = 800;

/** The day of the first opening of a rhythm after a day; null where there is none for years. */
export function nextOpeningDay(rhythm: ChannelRhythm, after: LocalDate, zone: Zone): LocalDate | null {
  for (let from = 1; from < NEXT_WITHIN_DAYS; from += LOOKED_AT_ONCE) {
    const [first] = openingsBetween(rhythm, addDays(after, from), addDays(after, from + LOOKED_AT_ONCE - 1), zone);
    if (first) return first.date;
  }
  return null;
}
const LOOKED_AT_ONCE = 31;

/**
 * Whether an entry comes round on a day.
 *
 * @param from the entry's first day: weeks are counted from the one that holds it (weeks begin on Monday here)
 *
 * @example
 * fallsOn({ kind: 'weekly', weekday: 2, every: 2 }, '2026-12-08', '2026-11-23') // true: two weeks after Tuesday 24 November
 * fallsOn({ kind: 'monthlyWeekday', weekday: 5, nth: -1 }, '2026-11-27', null) // true: the last Friday
 * fallsOn({ kind: 'monthlyDate', day: 31 }, '2026-11-30', null) // false: November has no 31st
 */
export function fallsOn(recurrence: Recurrence, date: LocalDate, from: LocalDate | null): boolean {
  switch (recurrence.kind) {
    case 'daily':
      return !recurrence.except.includes(weekdayOf(date));
    case 'weekly':
      if (weekdayOf(date) !== recurrence.weekday) return false;
      if (recurrence.every === 1 || from === null) return true;
      return (daysBetween(monday(from), monday(date)) / 7) % recurrence.every === 0;
    case 'monthlyWeekday':
      if (weekdayOf(date) !== recurrence.weekday) return false;
      return recurrence.nth === -1
        ? addDays(date, 7).slice(5, 7) !== date.slice(5, 7)
        : Math.ceil(Number(date.slice(8)) / 7) === recurrence.nth;
    case 'monthlyDate':
      return recurrence.day === -1
        ? addDays(date, 1).slice(5, 7) !== date.slice(5, 7)
        : Number(date.slice(8)) === recurrence.day;
  }
}

const monday = (date: LocalDate): LocalDate => addDays(date, 1 - weekdayOf(date));

function realTime(date: LocalDate, time: LocalTime, zone: Zone): LocalTime {
  const placed = placePlan(date, time, zone);
  return placed.kind === 'real' ? time : placed.next.date === date ? placed.next.time : '23:59';
}
