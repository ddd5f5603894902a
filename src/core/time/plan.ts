import { Temporal } from 'temporal-polyfill';
import { accept, refuse, type Result } from '../refusal';

/** A point in time as ISO 8601 text in UTC with milliseconds, `2026-11-23T14:30:00.000Z`: sorts as it reads. */
export type Instant = string;
/** A day on somebody's calendar, `2026-11-23`, without a zone. */
export type LocalDate = string;
/** A time of day to the minute, `14:30`, without a zone. */
export type LocalTime = string;
/** A zone by its IANA name, `Europe/Lisbon`. */
export type Zone = string;

/** Where a local date and time falls in its zone. */
type Placement =
  /** The instant meant; `repeated` says that the clock shows this time twice that day and the first is meant. */
  | { kind: 'real'; instant: Instant; repeated: boolean }
  /** The clock jumps over this time; `next` is the first time after it that exists, on the same day or the next. */
  | { kind: 'skipped'; next: { date: LocalDate; time: LocalTime } };

const instantText = (instant: Temporal.Instant): Instant => instant.toString({ smallestUnit: 'millisecond' });

/**
 * Reads a date such as `2026-02-28`. A date that no calendar has (`2026-02-31`) is refused, not moved.
 * Years 1900 to 2199.
 */
export function readDate(text: string, field = 'date'): Result<LocalDate> {
  const parts = /^(\d{4})-(\d{2})-(\d{2})$/.exec(text);
  if (!parts)
    return refuse('badDate', `“${clip(text)}” is not a date. Write it as year-month-day, like 2026-11-26.`, field);
  const [year, month, day] = parts.slice(1).map(Number) as [number, number, number];
  if (year < 1900 || year > 2199)
    return refuse('badDate', `The year ${year} is out of reach. Take one from 1900 to 2199.`, field);
  try {
    return accept(Temporal.PlainDate.from({ year, month, day }, { overflow: 'reject' }).toString());
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    const last = month >= 1 && month <= 12 ? Temporal.PlainYearMonth.from({ year, month }).daysInMonth : null;
    const mend = last ? `That month ends on the ${last}.` : 'Months go from 01 to 12.';
    return refuse('badDate', `There is no ${text}. ${mend}`, field);
  }
}

/** Reads a time such as `14:30` (seconds are accepted and dropped when they are zero). */
export function readTime(text: string, field = 'time'): Result<LocalTime> {
  const parts = /^(\d{1,2}):(\d{2})(?::00)?$/.exec(text);
  const [hour, minute] = [Number(parts?.[1]), Number(parts?.[2])];
  if (!parts || hour > 23 || minute > 59)
    return refuse('badTime', `“${clip(text)}” is not a time. Write hours and minutes, like 14:30.`, field);
  return accept(`${String(hour).padStart(2, '0')}:${String(minute).padStart(2, '0')}`);
}

/** Whether this machine knows the zone by that name. */
export function isZone(name: string): boolean {
  try {
    Temporal.Instant.fromEpochMilliseconds(0).toZonedDateTimeISO(name);
    return true;
  } catch (error) {
    if (error instanceof RangeError) return false;
    throw error;
  }
}

/** Checks the name of a time zone. */
export function readZone(name: string, field = 'zone'): Result<Zone> {
  if (isZone(name)) return accept(name);
  return refuse('badZone', `“${name.slice(0, 60)}” is not a time zone. Write it like Europe/Lisbon.`, field);
}

/**
 * Finds the instant of a local plan. The policy for clock changes: a skipped time is named as such together with the
 * next real one; of a repeated time the first is meant.
 *
 * @example
 * placePlan('2026-03-29', '01:30', 'Europe/Lisbon') // { kind: 'skipped', next: { date: '2026-03-29', time: '02:00' } }: clocks go from 01:00 to 02:00
 * placePlan('2026-10-25', '01:30', 'Europe/Lisbon') // { kind: 'real', instant: '2026-10-25T00:30:00.000Z', repeated: true }: the summer one of the two
 */
export function placePlan(date: LocalDate, time: LocalTime, zone: Zone): Placement {
  const asked = `${date} ${time} ${zone}`;
  const known = placed.get(asked);
  if (known) return known;
  const placement = workOut(date, time, zone);
  if (placed.size >= PLACED_KEPT) placed.clear();
  placed.set(asked, placement);
  return placement;
}

/** Plans that were placed before: one change of a post asks three times, and posts share their times. */
const placed = new Map<string, Placement>();
const PLACED_KEPT = 4_000;

function workOut(date: LocalDate, time: LocalTime, zone: Zone): Placement {
  const plain = Temporal.PlainDateTime.from(`${date}T${time}`);
  const earlier = plain.toZonedDateTime(zone, { disambiguation: 'earlier' });
  const later = plain.toZonedDateTime(zone, { disambiguation: 'later' });
  if (earlier.epochMilliseconds === later.epochMilliseconds)
    return { kind: 'real', instant: instantText(earlier.toInstant()), repeated: false };
  if (earlier.toPlainDateTime().equals(plain))
    return { kind: 'real', instant: instantText(earlier.toInstant()), repeated: true };
  const jump = earlier.getTimeZoneTransition('next');
  if (!jump) throw new Error(`a skipped time without a clock change after it: ${date} ${time} ${zone}`);
  return { kind: 'skipped', next: localOf(instantText(jump.toInstant()), zone) };
}

/** The due instant of a plan, or the refusal that names the next real time. */
export function dueInstant(date: LocalDate, time: LocalTime, zone: Zone): Result<Instant> {
  const place = placePlan(date, time, zone);
  if (place.kind === 'real') return accept(place.instant);
  const day = place.next.date === date ? '' : ` on ${place.next.date}`;
  return refuse(
    'skippedTime',
    `The clocks in ${zone} jump over ${time} on ${date}. The next real time is ${place.next.time}${day}.`,
    'time',
  );
}

/** What `localOf` was asked last: one “now” is asked about for hundreds of posts in a row. */
let lastLocal: { instant: Instant; zone: Zone; local: { date: LocalDate; time: LocalTime } } | undefined;

/** What the clock on the wall shows in the zone at an instant, to the minute (seconds cut off). */
export function localOf(instant: Instant, zone: Zone): { date: LocalDate; time: LocalTime } {
  if (lastLocal?.instant !== instant || lastLocal.zone !== zone) {
    const zoned = Temporal.Instant.from(instant).toZonedDateTimeISO(zone);
    const time = zoned.toPlainTime().toString({ smallestUnit: 'minute' });
    lastLocal = { instant, zone, local: { date: zoned.toPlainDate().toString(), time } };
  }
  return { ...lastLocal.local };
}

/** The instant so many milliseconds later. */
export function addMs(instant: Instant, ms: number): Instant {
  return new Date(Date.parse(instant) + ms).toISOString();
}

/** Milliseconds from the first instant to the second. */
export function msBetween(from: Instant, to: Instant): number {
  return Date.parse(to) - Date.parse(from);
}

const clip = (text: string): string => (text.length > 40 ? `${text.slice(0, 40)}…` : text);
