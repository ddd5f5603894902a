import { FORMAT_LABELS, FORMATS, type Format } from '../rulesheets/types';
import { accept, refuse, type Result } from '../refusal';
import type { LocalDate, LocalTime } from '../time/plan';

/** Which of its weekdays in a month: the first to fourth, or the last. */
export type NthWeekday = 1 | 2 | 3 | 4 | -1;

/** When an entry of a rhythm comes round. Weekdays are 1 for Monday to 7 for Sunday. */
export type Recurrence =
  /** Every day but on those weekdays. */
  | { kind: 'daily'; except: readonly number[] }
  /** Every `every` weeks; with more than one, the week that holds `from` is the first. */
  | { kind: 'weekly'; weekday: number; every: number }
  /** The first to fourth such weekday of each month, or with -1 the last. */
  | { kind: 'monthlyWeekday'; weekday: number; nth: NthWeekday }
  /** That day of each month; months that lack it are passed over. -1 is the last day. */
  | { kind: 'monthlyDate'; day: number };

/** One line of a channel's rhythm: what it should publish, and when. */
export interface RhythmEntry {
  id: string;
  recurrence: Recurrence;
  time: LocalTime;
  /** Some time from `time` on before this; null or absent for that very minute. */
  until?: LocalTime | null;
  /** The format asked for; null takes any. */
  format: Format | null;
  /** The day's theme in a few words; empty for none. */
  theme: string;
  pillarId: string | null;
  /** First and last day it holds, both included; null for no bound. */
  from: LocalDate | null;
  to: LocalDate | null;
}

/** Days, both included, on which nothing is asked for. */
export interface DaySpan {
  from: LocalDate;
  to: LocalDate;
}

/** Entries one channel may have. */
const RHYTHM_LIMIT = 60;
/** Weeks between two rounds of a rhythm’s entry at most. */
export const MAX_WEEKS = 26;

/**
 * Checks a channel's rhythm as a whole. Refused: an entry outside its ranges, one that ends before it begins, one of
 * several weeks without a first day to count from, two that ask for the same minute.
 */
export function readRhythm(entries: readonly RhythmEntry[]): Result<readonly RhythmEntry[]> {
  if (entries.length > RHYTHM_LIMIT)
    return refuse('rhythmTooLong', `A rhythm holds ${RHYTHM_LIMIT} entries, this has ${entries.length}.`, 'entries');
  for (const [index, entry] of entries.entries()) {
    const problem = problemOf(entry);
    if (problem) return refuse('badEntry', `Entry ${index + 1}: ${problem}`, `entries[${index}]`);
  }
  for (const [index, entry] of entries.entries()) {
    const twin = entries.findIndex((other, place) => place < index && asksForTheSame(other, entry));
    if (twin >= 0)
      return refuse(
        'sameMinute',
        `Entries ${twin + 1} and ${index + 1} both ask for ${recurrenceWords(entry.recurrence)} at ${entry.time}. Change or remove one.`,
        `entries[${index}]`,
      );
  }
  return accept(entries);
}

const IS_TIME = /^([01]\d|2[0-3]):[0-5]\d$/;

function problemOf({ recurrence, time, until, format, theme, from, to }: RhythmEntry): string | null {
  if (!IS_TIME.test(time)) return `“${time}” is not a time. Write it like 14:30.`;
  const ofRecurrence = readRecurrence(recurrence, MAX_WEEKS);
  if (ofRecurrence !== null) return ofRecurrence;
  if (recurrence.kind === 'weekly' && recurrence.every > 1 && from === null)
    return 'every few weeks needs a first day to count from.';
  if (until != null && !IS_TIME.test(until)) return `“${until}” is not a time. Write it like 14:30.`;
  if (until != null && until <= time) return `the window ends at ${until}, before it begins at ${time}.`;
  if (format !== null && !FORMATS.includes(format)) return 'there is no such format.';
  if (theme.length > 60) return `the theme has ${theme.length} characters; 60 are kept.`;
  if (from !== null && to !== null && to < from) return 'it ends before it begins.';
  return null;
}

/** What is wrong with a recurrence; null where nothing is. @param mostWeeks between two rounds */
export function readRecurrence(recurrence: Recurrence, mostWeeks: number): string | null {
  switch (recurrence.kind) {
    case 'daily':
      if (!Array.isArray(recurrence.except) || !recurrence.except.every((day) => isWhole(day, 1, 7)))
        return 'the days that are left out are weekdays, 1 to 7.';
      return new Set(recurrence.except).size < 7 ? null : 'no day is left on which it comes.';
    case 'weekly':
      if (!isWhole(recurrence.weekday, 1, 7)) return 'the weekday is missing.';
      return isWhole(recurrence.every, 1, mostWeeks) ? null : `every how many weeks? Take 1 to ${mostWeeks}.`;
    case 'monthlyWeekday':
      if (!isWhole(recurrence.weekday, 1, 7)) return 'the weekday is missing.';
      return [1, 2, 3, 4, -1].includes(recurrence.nth) ? null : 'which one of the month? First to fourth, or last.';
    case 'monthlyDate':
      return recurrence.day === -1 || isWhole(recurrence.day, 1, 31) ? null : 'days of a month go from 1 to 31.';
    default:
      return 'how often?';
  }
}

const isWhole = (value: number, least: number, most: number): boolean =>
  Number.isInteger(value) && value >= least && value <= most;

function asksForTheSame(a: RhythmEntry, b: RhythmEntry): boolean {
  const overlap = (a.from ?? '') <= (b.to ?? '9') && (b.from ?? '') <= (a.to ?? '9');
  return overlap && a.time === b.time && JSON.stringify(sorted(a.recurrence)) === JSON.stringify(sorted(b.recurrence));
}

const sorted = (recurrence: Recurrence) => Object.entries(recurrence).sort();

const WEEKDAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];
/** The words for which of its weekdays in a month. */
export const NTH: Record<NthWeekday, string> = { 1: 'first', 2: 'second', 3: 'third', 4: 'fourth', [-1]: 'last' };

/** The name of a weekday, 1 for Monday to 7 for Sunday. */
export const weekdayWord = (weekday: number): string => WEEKDAYS[weekday - 1] ?? '?';

/** The weekdays on which a recurrence may come; none of one that comes on a date. */
export function weekdaysOf(recurrence: Recurrence): number[] {
  if (recurrence.kind === 'monthlyDate') return [];
  if (recurrence.kind !== 'daily') return [recurrence.weekday];
  return [1, 2, 3, 4, 5, 6, 7].filter((day) => !recurrence.except.includes(day));
}

/**
 * A recurrence as people say it.
 *
 * @example
 * recurrenceWords({ kind: 'weekly', weekday: 2, every: 1 }) // 'every Tuesday'
 * recurrenceWords({ kind: 'weekly', weekday: 2, every: 3 }) // 'Tuesday every 3 weeks'
 * recurrenceWords({ kind: 'monthlyWeekday', weekday: 5, nth: -1 }) // 'the last Friday of the month'
 * recurrenceWords({ kind: 'monthlyDate', day: 15 }) // 'day 15 of the month'
 */
export function recurrenceWords(recurrence: Recurrence): string {
  switch (recurrence.kind) {
    case 'daily':
      return dailyWords(recurrence.except);
    case 'weekly':
      return recurrence.every === 1
        ? `every ${weekdayWord(recurrence.weekday)}`
        : `${weekdayWord(recurrence.weekday)} every ${recurrence.every} weeks`;
    case 'monthlyWeekday':
      return `the ${NTH[recurrence.nth]} ${weekdayWord(recurrence.weekday)} of the month`;
    case 'monthlyDate':
      return recurrence.day === -1 ? 'the last day of the month' : `day ${recurrence.day} of the month`;
  }
}

function dailyWords(except: readonly number[]): string {
  const left = [...new Set(except)].sort();
  if (left.length === 0) return 'every day';
  if (left.join() === '6,7') return 'every day from Monday to Friday';
  return `every day but ${left.map(weekdayWord).join(', ')}`;
}

/** What an opening asks for, in a few words: “carousel · New object”. */
export const askedFor = (opening: { format: Format | null; theme: string }): string =>
  [opening.format ? FORMAT_LABELS[opening.format] : '', opening.theme].filter(Boolean).join(' · ');
