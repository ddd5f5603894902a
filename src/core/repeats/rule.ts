import { fallsOn } from '../rhythm/openings';
import { NTH, readRecurrence, recurrenceWords, weekdayWord, type NthWeekday, type Recurrence } from '../rhythm/entry';
import { accept, refuse, type Result } from '../refusal';
import { addDays, weekdayOf } from '../time/days';
import type { LocalDate } from '../time/plan';

/** A day of each year. Months are 1 to 12, weekdays 1 for Monday to 7 for Sunday. */
export type YearlyRule =
  /** That date; 29 February is the 28th in years without one. */
  | { kind: 'yearlyDate'; month: number; day: number }
  /** The first to fourth such weekday of that month, or with -1 the last. */
  | { kind: 'yearlyWeekday'; month: number; weekday: number; nth: NthWeekday }
  /** The day that a date to plan around of that title has: for days that no rule gives. */
  | { kind: 'knownDate'; title: string };

/** When a repeat comes round. */
export type RepeatRule = Recurrence | YearlyRule;

/** Weeks between two rounds of a repeat at most. */
export const MOST_WEEKS = 104;
const TITLE_LIMIT = 300;

const MONTHS = [
  ...['January', 'February', 'March', 'April', 'May', 'June'],
  ...['July', 'August', 'September', 'October', 'November', 'December'],
];
const LONGEST = [31, 29, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31];

/** The name of a month, 1 for January. */
export const monthWord = (month: number): string => MONTHS[month - 1] ?? '?';

export const isYearly = (rule: RepeatRule): rule is YearlyRule =>
  rule.kind === 'yearlyDate' || rule.kind === 'yearlyWeekday' || rule.kind === 'knownDate';

/** Checks a rule. Refused: what is outside its ranges, a date that no year has. */
export function readRule(rule: RepeatRule): Result<RepeatRule> {
  const problem = problemOf(rule);
  return problem === null ? accept(rule) : refuse('badRule', problem, 'rule');
}

function problemOf(rule: RepeatRule): string | null {
  const isWhole = (value: number, least: number, most: number) =>
    Number.isInteger(value) && value >= least && value <= most;
  switch (rule.kind) {
    case 'yearlyDate':
      if (!isWhole(rule.month, 1, 12)) return 'Which month? January to December.';
      return isWhole(rule.day, 1, LONGEST[rule.month - 1]!)
        ? null
        : `${monthWord(rule.month)} has no day ${rule.day}. Take 1 to ${LONGEST[rule.month - 1]}.`;
    case 'yearlyWeekday':
      if (!isWhole(rule.month, 1, 12)) return 'Which month? January to December.';
      if (!isWhole(rule.weekday, 1, 7)) return 'Which weekday? Monday to Sunday.';
      return rule.nth in NTH ? null : 'Which one of the month? First to fourth, or last.';
    case 'knownDate':
      return typeof rule.title === 'string' && rule.title.trim() !== '' && rule.title.length <= TITLE_LIMIT
        ? null
        : 'Which date? Choose one of your dates to plan around.';
    default: {
      const read = readRecurrence(rule, MOST_WEEKS);
      return read === null ? null : read.charAt(0).toUpperCase() + read.slice(1);
    }
  }
}

/**
 * Whether a rule comes round on a day.
 *
 * @param from the first day: weeks are counted from the one that holds it
 * @param known the days of the date to plan around that it names
 */
export function comesRound(rule: RepeatRule, date: LocalDate, from: LocalDate, known: ReadonlySet<LocalDate>): boolean {
  switch (rule.kind) {
    case 'yearlyDate': {
      const wanted = date.slice(0, 5) + two(rule.month) + '-' + two(rule.day);
      return date === wanted || (rule.month === 2 && rule.day === 29 && date.slice(5) === '02-28' && !isLeap(date));
    }
    case 'yearlyWeekday':
      return (
        date.slice(5, 7) === two(rule.month) &&
        weekdayOf(date) === rule.weekday &&
        fallsOn({ kind: 'monthlyWeekday', weekday: rule.weekday, nth: rule.nth }, date, null)
      );
    case 'knownDate':
      return known.has(date);
    default:
      return fallsOn(rule, date, from);
  }
}

const two = (value: number): string => String(value).padStart(2, '0');
const isLeap = (date: LocalDate): boolean => addDays(`${date.slice(0, 4)}-02-28`, 1).slice(5) === '02-29';

/**
 * A rule as people say it.
 *
 * @example
 * ruleWords({ kind: 'yearlyWeekday', month: 11, weekday: 5, nth: -1 }) // 'every year on the last Friday of November'
 */
export function ruleWords(rule: RepeatRule): string {
  switch (rule.kind) {
    case 'yearlyDate':
      return `every year on ${rule.day} ${monthWord(rule.month)}${
        rule.month === 2 && rule.day === 29 ? ' (the 28th in years without it)' : ''
      }`;
    case 'yearlyWeekday':
      return `every year on the ${NTH[rule.nth]} ${weekdayWord(rule.weekday)} of ${monthWord(rule.month)}`;
    case 'knownDate':
      return `every year for “${rule.title}”`;
    default:
      return recurrenceWords(rule);
  }
}
