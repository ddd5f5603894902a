import { accept, refuse, type Result } from '../refusal';
import type { Format } from '../rulesheets/types';
import { readDate, type LocalDate, type LocalTime } from '../time/plan';
import { isYearly, readRule, type RepeatRule } from './rule';

/** What a repeat is: a numbered theme whose posts are written each time, the same words again, or work that comes with a day of the year. */
export const REPEAT_KINDS = ['series', 'evergreen', 'seasonal'] as const;
export type RepeatKind = (typeof REPEAT_KINDS)[number];

/** Posts that are kept ahead where nothing else was said. */
export const USUAL_AHEAD: Record<RepeatKind, number> = { series: 4, evergreen: 4, seasonal: 1 };
/** Posts that may be kept ahead; what comes once a year is not made for longer than five. */
export const mostAhead = (rule: RepeatRule): number => (isYearly(rule) ? 5 : 26);
/** Days before publishing at which the work on a seasonal post begins. */
export const WORK_DAYS = { least: 30, most: 90, usual: 45 } as const;
/** Days before the season's day at which its post may be published. */
const MOST_DAYS_BEFORE = 60;
const MOST_TIMES = 1_000;

/** What can be said of a repeat. */
export interface RepeatSaid {
  kind: RepeatKind;
  /** What its posts are called, with their number where it is a series. */
  name: string;
  format: Format;
  rule: RepeatRule;
  time: LocalTime;
  from: LocalDate;
  /** The last day it comes round; null for no end. */
  to: LocalDate | null;
  /** How many posts it makes in all, what was there at its start counted; null for no end. */
  times: number | null;
  ahead: number;
  /** Of a seasonal one: days before the season's day on which it is published; 0 for on the day. */
  daysBefore: number;
  /** Of a seasonal one: days before publishing at which its work begins; null for any other. */
  workDays: number | null;
}

/**
 * Checks what is said of a repeat, except its name and whether the channel takes its format. Refused: a rule that is none or not of its
 * kind, numbers out of range, an end before its beginning.
 */
export function readRepeat<S extends RepeatSaid>(said: S): Result<S> {
  const isWhole = (value: number, least: number, most: number) =>
    Number.isInteger(value) && value >= least && value <= most;
  if (!REPEAT_KINDS.includes(said.kind)) return refuse('badKind', 'A series, evergreen or seasonal?', 'kind');
  const rule = readRule(said.rule);
  if (!rule.ok) return rule;
  if ((said.kind === 'seasonal') !== isYearly(said.rule))
    return refuse('badRule', 'What is seasonal comes on a day of the year, and nothing else does.', 'rule');
  if (!/^([01]\d|2[0-3]):[0-5]\d$/.test(said.time))
    return refuse('badTime', `“${said.time}” is not a time. Write it like 14:30.`, 'time');
  for (const [field, day] of [
    ['from', said.from],
    ['to', said.to],
  ] as const) {
    const read = day === null ? null : readDate(day, field);
    if (read && !read.ok) return read;
  }
  if (said.to !== null && said.to < said.from) return refuse('endsBefore', 'It ends before it begins.', 'to');
  const most = mostAhead(said.rule);
  if (!isWhole(said.ahead, 1, most)) return refuse('badAhead', `1 to ${most} posts are kept ahead.`, 'ahead');
  if (said.times !== null && !isWhole(said.times, 1, MOST_TIMES))
    return refuse('badTimes', `It comes 1 to ${MOST_TIMES} times.`, 'times');
  if (!isWhole(said.daysBefore, 0, said.kind === 'seasonal' ? MOST_DAYS_BEFORE : 0))
    return refuse(
      'badDaysBefore',
      `Its post is published up to ${MOST_DAYS_BEFORE} days before the day, and never after it.`,
      'daysBefore',
    );
  const isWorkFine =
    said.kind === 'seasonal' ? isWhole(said.workDays ?? -1, WORK_DAYS.least, WORK_DAYS.most) : said.workDays === null;
  return isWorkFine
    ? accept(said)
    : refuse('badWorkDays', `Work begins ${WORK_DAYS.least} to ${WORK_DAYS.most} days before.`, 'workDays');
}

/** The working title of a post of a repeat: “Friday question 33” of a series, its name alone of any other. */
export const roundTitle = ({ kind, name }: Pick<RepeatSaid, 'kind' | 'name'>, number: number): string =>
  kind === 'series' ? `${name} ${number}` : name;
