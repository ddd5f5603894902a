import ICAL from 'ical.js';
import { accept, refuse, type Result } from '../refusal';
import { addDays } from '../time/days';
import { isZone, localOf, placePlan, type LocalDate, type LocalTime, type Zone } from '../time/plan';

/** Bytes of an iCalendar file that Bimlo takes in. */
export const ICAL_LIMIT_BYTES = 5_000_000;
/** Dates that one file may give. */
export const DATES_LIMIT = 5_000;
/** Steps that the repeating dates of a file are followed through, all together, to reach the days wanted: a few seconds' work. */
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

/**
 * Reads the dates of an iCalendar file (RFC 5545) from one day to another: whole days and timed ones, repeated by RRULE
 * and RDATE without EXDATE, in the zones the file defines or that this machine knows by name. Times come out on the brand's wall.
 * A rule without an end is followed up to the last day wanted; one that repeats within the day is left out and named.
 */
export function readCalendarFile(
  text: string,
  span: { from: LocalDate; to: LocalDate },
  zone: Zone,
): Result<CalendarFile> {
  let root: ICAL.Component;
  try {
    root = new ICAL.Component(ICAL.parse(text) as ConstructorParameters<typeof ICAL.Component>[0]);
  } catch (error) {
    return refuse('badCalendar', `The file is no iCalendar: ${reasonOf(error)}${lineOf(error, text)}.`, 'file');
  }
  if (root.name !== 'vcalendar') return refuse('badCalendar', 'The file holds no VCALENDAR.', 'file');
  const ownZones = new Map(
    root.getAllSubcomponents('vtimezone').map((part) => {
      const timezone = new ICAL.Timezone(part);
      return [timezone.tzid, timezone] as const;
    }),
  );
  const file: CalendarFile = { name: textOf(root.getFirstPropertyValue('x-wr-calname')), dates: [], bad: [] };
  const lines = linesOfEvents(text);
  const walk = { steps: 0 };
  for (const [index, component] of root.getAllSubcomponents('vevent').entries()) {
    const line = lines[index] ?? 1;
    try {
      const problem = readEvent(component, { span, zone, ownZones, into: file.dates, walk });
      if (problem) file.bad.push({ line, reason: problem });
    } catch (error) {
      file.bad.push({ line, reason: reasonOf(error) });
    }
    if (file.dates.length > DATES_LIMIT)
      return refuse(
        'tooManyDates',
        `The file gives more than ${DATES_LIMIT.toLocaleString('en-GB')} dates. Take a smaller one.`,
        'file',
      );
  }
  file.dates.sort((a, b) => (a.from + (a.time ?? '') + a.title < b.from + (b.time ?? '') + b.title ? -1 : 1));
  return accept(file);
}

interface Reading {
  span: { from: LocalDate; to: LocalDate };
  zone: Zone;
  ownZones: ReadonlyMap<string, ICAL.Timezone>;
  into: FileDate[];
  /** Steps taken so far in the whole file. */
  walk: { steps: number };
}

/** @returns why the event was left out, or null */
function readEvent(component: ICAL.Component, reading: Reading): string | null {
  const event = new ICAL.Event(component);
  const start = event.startDate;
  if (!start) return 'an event without DTSTART';
  const title = (event.summary ?? '').replace(/\s+/g, ' ').trim().slice(0, 200) || 'without a title';
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
  const rule = component.getFirstPropertyValue('rrule') as ICAL.Recur | null;
  if (rule && ['SECONDLY', 'MINUTELY', 'HOURLY'].includes(rule.freq))
    return `“${title}” repeats ${rule.freq.toLowerCase()}; dates to plan around repeat daily at most`;
  const iterator = event.iterator();
  for (;;) {
    if (reading.walk.steps++ > STEPS_LIMIT)
      return `“${title}” repeats too often to be followed up to ${reading.span.to}`;
    const next = iterator.next();
    if (!next) return null;
    const date = add(next);
    if (date.from > reading.span.to) return null;
    if (reading.into.length > DATES_LIMIT) return null;
  }
}

/** Where a time of the file falls on the brand's wall. */
function placeOf(
  time: ICAL.Time,
  zoneId: string | null,
  title: string,
  lengthSeconds: number,
  reading: Reading,
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
  reading: Reading,
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
