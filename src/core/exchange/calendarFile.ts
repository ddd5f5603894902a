import ICAL from 'ical.js';
import { accept, refuse, type Result } from '../refusal';
import { addDays } from '../time/days';
import { cleanText } from '../text/clean';
import { isZone, localOf, placePlan, readDate, type LocalDate, type LocalTime, type Zone } from '../time/plan';

/** Bytes of an iCalendar file that Bimlo takes in. */
export const ICAL_LIMIT_BYTES = 5_000_000;
/**
 * Dates that one file may give.
 *
 * @internal
 */
export const DATES_LIMIT = 5_000;
/** Steps that the repeating dates of a file are followed through, all together, to reach the days wanted: a few seconds' work. A step that finds nothing for long is ended from outside. */
const STEPS_LIMIT = 60_000;

/** A date of a calendar file, on the brand's wall. */
export interface FileDate {
  title: string;
  from: LocalDate;
  /** Last day, included. */
  to: LocalDate;
  /** Null for whole days. */
  time: LocalTime | null;
}

/** What a file gives, and what of it could not be read. */
export interface CalendarFile {
  name: string | null;
  dates: FileDate[];
  /** Events left out, with the line their part of the file begins on. */
  bad: { line: number; reason: string }[];
}

/** From one day to another, both included. */
export interface DaySpan {
  from: LocalDate;
  to: LocalDate;
}

/** How a file is read by somebody who watches how long it takes. */
interface ReadingOptions {
  /** Places of events, from 0, that took too long before: they are left out and named. */
  leftOut?: readonly number[];
  /** Told the place of each event before it is read. */
  onEvent?: (index: number) => void;
}

/**
 * Reads the dates of an iCalendar file (RFC 5545) from one day to another: whole days and timed ones, repeated by RRULE
 * and RDATE without EXDATE, single ones of them moved or called off (RECURRENCE-ID, STATUS:CANCELLED), in the zones the file
 * defines or that this machine knows by name; of all the calendars a file holds. Times come out on the brand's wall. A rule
 * without an end is followed up to the last day wanted; one that repeats within the day is left out and named, and a date
 * that a year does not have (29 February) is none in that year.
 */
export function readCalendarFile(
  text: string,
  span: DaySpan,
  zone: Zone,
  { leftOut = [], onEvent = () => undefined }: ReadingOptions = {},
): Result<CalendarFile> {
  let roots: ICAL.Component[];
  try {
    roots = calendarsIn(text);
  } catch (error) {
    return refuse(
      'badCalendar',
      `The file is not an iCalendar file: ${reasonOf(error)}${lineOf(error, text)}.`,
      'file',
    );
  }
  if (roots.length === 0) return refuse('badCalendar', 'The file holds no VCALENDAR.', 'file');
  const name = roots.map((root) => textOf(root.getFirstPropertyValue('x-wr-calname'))).find((one) => one !== null);
  const file: CalendarFile = { name: name ?? null, dates: [], bad: [] };
  const lines = linesOfEvents(text);
  const walk = { steps: 0 };
  let index = -1;
  for (const root of roots) {
    const ownZones = zonesOf(root);
    const components = root.getAllSubcomponents('vevent');
    const exceptions = exceptionsOf(components);
    for (const component of components) {
      index++;
      onEvent(index);
      const line = lines[index] ?? 1;
      const before = file.dates.length;
      const leaveOut = (reason: string) => {
        file.bad.push({ line, reason });
        file.dates.length = before;
      };
      try {
        const problem = leftOut.includes(index)
          ? `${titleOf(component)} repeats by a rule that takes too long to follow`
          : readEvent(component, { span, zone, ownZones, exceptions, into: file.dates, walk });
        if (problem) leaveOut(problem);
      } catch (error) {
        leaveOut(reasonOf(error));
      }
      if (file.dates.length > DATES_LIMIT)
        return refuse(
          'tooManyDates',
          `The file gives more than ${DATES_LIMIT.toLocaleString('en-GB')} dates. Take a smaller one.`,
          'file',
        );
    }
  }
  file.dates.sort((a, b) => (a.from + (a.time ?? '') + a.title < b.from + (b.time ?? '') + b.title ? -1 : 1));
  return accept(file);
}

/** The calendars of a file: one, as a rule. */
function calendarsIn(text: string): ICAL.Component[] {
  const parsed = ICAL.parse(text) as unknown[];
  const roots = (typeof parsed[0] === 'string' ? [parsed] : parsed) as ConstructorParameters<
    typeof ICAL.Component
  >[0][];
  return roots.map((root) => new ICAL.Component(root)).filter((component) => component.name === 'vcalendar');
}

const zonesOf = (root: ICAL.Component): Map<string, ICAL.Timezone> =>
  new Map(
    root.getAllSubcomponents('vtimezone').map((part) => {
      const timezone = new ICAL.Timezone(part);
      return [timezone.tzid, timezone] as const;
    }),
  );

const uidOf = (component: ICAL.Component): string => textOf(component.getFirstPropertyValue('uid')) ?? '';
const isCancelled = (component: ICAL.Component): boolean =>
  textOf(component.getFirstPropertyValue('status'))?.toUpperCase() === 'CANCELLED';

/** The single dates that events of the file replace in their series, as ICAL writes them, by UID. */
function exceptionsOf(components: readonly ICAL.Component[]): Map<string, Set<string>> {
  const exceptions = new Map<string, Set<string>>();
  for (const component of components) {
    const replaced = component.getFirstPropertyValue('recurrence-id');
    if (!(replaced instanceof ICAL.Time)) continue;
    const uid = uidOf(component);
    exceptions.set(uid, (exceptions.get(uid) ?? new Set()).add(replaced.toString()));
  }
  return exceptions;
}

const titleOf = (component: ICAL.Component): string => `“${plainTitle(component)}”`;
const plainTitle = (component: ICAL.Component): string =>
  cleanText(textOf(component.getFirstPropertyValue('summary')) ?? '')
    .replace(/\s+/g, ' ')
    .trim()
    .slice(0, 200) || 'without a title';

interface SavedView {
  span: DaySpan;
  zone: Zone;
  ownZones: ReadonlyMap<string, ICAL.Timezone>;
  exceptions: ReadonlyMap<string, ReadonlySet<string>>;
  into: FileDate[];
  /** Steps taken so far in the whole file. */
  walk: { steps: number };
}

/** @returns why the event was left out, or null */
function readEvent(component: ICAL.Component, reading: SavedView): string | null {
  if (isCancelled(component)) return null;
  const impossible = impossibleDate(component);
  if (impossible) return `${titleOf(component)}: there is no ${impossible}`;
  const event = new ICAL.Event(component);
  const start = event.startDate;
  if (!start) return 'an event without DTSTART';
  const title = plainTitle(component);
  const zoneId = textOf(component.getFirstProperty('dtstart')?.getParameter('tzid') ?? null);
  if (zoneId && !reading.ownZones.has(zoneId) && !isZone(zoneId))
    return `“${title}”: the zone “${zoneId.slice(0, 60)}” is neither defined in the file nor known`;
  const lengthSeconds = event.duration ? event.duration.toSeconds() : 0;
  const add = (time: ICAL.Time) => {
    const date = placeOf(time, zoneId, title, lengthSeconds, reading);
    if (date.to >= reading.span.from && date.from <= reading.span.to) reading.into.push(date);
    return date;
  };
  if (!event.isRecurring()) {
    add(start);
    return null;
  }
  const rules = component.getAllProperties('rrule').map((property) => property.getFirstValue() as ICAL.Recur);
  const fault = rules.map((rule) => whyNotFollowed(rule)).find((one) => one !== null);
  if (fault) return `“${title}” ${fault}`;
  const replaced = reading.exceptions.get(uidOf(component));
  const iterator = event.iterator();
  for (;;) {
    if (reading.walk.steps++ > STEPS_LIMIT)
      return `“${title}” repeats too often to be followed up to ${reading.span.to}`;
    const next = iterator.next();
    if (!next) return null;
    if (replaced?.has(next.toString()) || !rules.every((rule) => isOfRule(next, rule, start))) continue;
    const date = add(next);
    if (date.from > reading.span.to) return null;
    if (reading.into.length > DATES_LIMIT) return null;
  }
}

/** The longest wait between two dates of a rule that is followed: whoever repeats less often than this names them. */
const INTERVAL_LIMIT = 1_000;
/** Days of the longest month, by its number. */
const LONGEST = [31, 29, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31];

/** Why a rule cannot be followed, in words that go on after the title; null when it can. */
function whyNotFollowed(rule: ICAL.Recur): string | null {
  if (['SECONDLY', 'MINUTELY', 'HOURLY'].includes(rule.freq))
    return `repeats ${rule.freq.toLowerCase()}; dates to plan around repeat daily at most`;
  if (rule.interval > INTERVAL_LIMIT) return `repeats every ${rule.interval}, which is too seldom to be followed`;
  const months = partOf(rule, 'BYMONTH');
  const days = partOf(rule, 'BYMONTHDAY');
  if (months.length > 0 && days.length > 0) {
    const fits = months.some((month) => days.some((day) => Math.abs(day) <= (LONGEST[month - 1] ?? 0)));
    if (!fits) return 'repeats on a day that no month it names has';
  }
  return null;
}

const partOf = (rule: ICAL.Recur, name: 'BYMONTH' | 'BYMONTHDAY'): number[] => (rule.parts[name] ?? []).map(Number);

/**
 * Whether a date is one that its rule means. A parser that counts 30 February on into March is not followed there: a date
 * that a month or year does not have is none (RFC 5545, 3.3.10).
 */
function isOfRule(time: ICAL.Time, rule: ICAL.Recur, start: ICAL.Time): boolean {
  const [months, days] = [partOf(rule, 'BYMONTH'), partOf(rule, 'BYMONTHDAY')];
  if (months.length > 0 && !months.includes(time.month)) return false;
  if (days.length > 0) {
    const last = ICAL.Time.daysInMonth(time.month, time.year);
    return days.some((day) => (day > 0 ? day : last + 1 + day) === time.day);
  }
  const isPlain = Object.keys(rule.parts).every((name) => name === 'BYMONTH');
  if (!isPlain || !['MONTHLY', 'YEARLY'].includes(rule.freq)) return true;
  return time.day === start.day && (rule.freq === 'MONTHLY' || months.length > 0 || time.month === start.month);
}

/** A date of an event that no calendar has, as the file writes it; null when all are real. */
function impossibleDate(component: ICAL.Component): string | null {
  for (const name of ['dtstart', 'dtend', 'recurrence-id', 'rdate', 'exdate'])
    for (const property of component.getAllProperties(name))
      for (const value of (property.jCal as unknown[]).slice(3)) {
        const date = typeof value === 'string' ? /^(\d{4}-\d{2}-\d{2})/.exec(value)?.[1] : undefined;
        if (date && !readDate(date).ok) return date;
      }
  return null;
}

/** Where a time of the file falls on the brand's wall. */
function placeOf(
  time: ICAL.Time,
  zoneId: string | null,
  title: string,
  lengthSeconds: number,
  reading: SavedView,
): FileDate {
  const day = `${String(time.year).padStart(4, '0')}-${two(time.month)}-${two(time.day)}`;
  if (time.isDate) {
    const days = Math.max(1, Math.round(lengthSeconds / 86_400));
    return { title, from: day, to: addDays(day, days - 1), time: null };
  }
  const wall = `${two(time.hour)}:${two(time.minute)}`;
  const instant = instantOf(time, zoneId, day, wall, reading);
  if (instant === null) return { title, from: day, to: day, time: wall };
  const start = localOf(instant, reading.zone);
  const end = localOf(
    new Date(Date.parse(instant) + Math.max(0, lengthSeconds - 1) * 1000).toISOString(),
    reading.zone,
  );
  return { title, from: start.date, to: end.date, time: start.time };
}

/** Null for a floating time, which is the same on every wall. */
function instantOf(
  time: ICAL.Time,
  zoneId: string | null,
  day: LocalDate,
  wall: LocalTime,
  reading: SavedView,
): string | null {
  if (time.zone === ICAL.Timezone.utcTimezone) return new Date(`${day}T${wall}:00Z`).toISOString();
  if (!zoneId) return null;
  const own = reading.ownZones.get(zoneId);
  if (own) {
    const offset = own.utcOffset(time);
    return new Date(Date.parse(`${day}T${wall}:00Z`) - offset * 1000).toISOString();
  }
  const placed = placePlan(day, wall, zoneId);
  const real = placed.kind === 'real' ? placed : placePlan(placed.next.date, placed.next.time, zoneId);
  return real.kind === 'real' ? real.instant : null;
}

const two = (number: number): string => String(number).padStart(2, '0');
const textOf = (value: unknown): string | null =>
  typeof value === 'string' ? value : Array.isArray(value) && typeof value[0] === 'string' ? value[0] : null;

const reasonOf = (error: unknown): string =>
  error instanceof Error ? error.message.slice(0, 200) : 'it cannot be read';

/** The line that a message of the parser quotes, where it does. */
function lineOf(error: unknown, text: string): string {
  const quoted = error instanceof Error ? /"([^"]{3,})"\s*$/.exec(error.message)?.[1] : undefined;
  if (!quoted) return '';
  const index = text
    .split(/\r?\n/)
    .findIndex((line) => line.trim() !== '' && quoted.startsWith(line.trim().slice(0, 40)));
  return index < 0 ? '' : ` (line ${index + 1})`;
}

function linesOfEvents(text: string): number[] {
  const lines: number[] = [];
  text.split(/\r?\n/).forEach((line, index) => {
    if (/^BEGIN:VEVENT\s*$/i.test(line)) lines.push(index + 1);
  });
  return lines;
}
