import type { Instant, LocalDate, Zone } from '@/core/time/plan';

// The page is drawn on the server and taken over in the browser, so both have to use one locale.
const LOCALE = 'en-GB';
const noon = (date: LocalDate): Date => new Date(`${date}T12:00:00Z`);

const formats = {
  short: new Intl.DateTimeFormat(LOCALE, { weekday: 'short', day: 'numeric', month: 'short', timeZone: 'UTC' }),
  spoken: new Intl.DateTimeFormat(LOCALE, { weekday: 'long', day: 'numeric', month: 'long', timeZone: 'UTC' }),
  month: new Intl.DateTimeFormat(LOCALE, { month: 'long', year: 'numeric', timeZone: 'UTC' }),
  dayMonth: new Intl.DateTimeFormat(LOCALE, { day: 'numeric', month: 'short', timeZone: 'UTC' }),
  dayMonthLong: new Intl.DateTimeFormat(LOCALE, { day: 'numeric', month: 'long', timeZone: 'UTC' }),
  weekday: new Intl.DateTimeFormat(LOCALE, { weekday: 'short', timeZone: 'UTC' }),
};

/** `Thu 26 Nov` */
export const shortDate = (date: LocalDate): string => formats.short.format(noon(date)).replace(',', '');
/** `Thursday 26 November` */
export const spokenDate = (date: LocalDate): string => formats.spoken.format(noon(date)).replace(',', '');
/** `26 Nov` */
export const dayMonth = (date: LocalDate): string => formats.dayMonth.format(noon(date));
/** `23 – 29 November`, or over the end of a month `30 November – 6 December`. */
export function spanName(from: LocalDate, to: LocalDate): string {
  const end = formats.dayMonthLong.format(noon(to));
  return from.slice(0, 7) === to.slice(0, 7)
    ? `${Number(from.slice(8))} – ${end}`
    : `${formats.dayMonthLong.format(noon(from))} – ${end}`;
}
/** `Tue 1 Feb 2028` */
export const dateWithYear = (date: LocalDate): string => `${shortDate(date)} ${date.slice(0, 4)}`;
/** `November 2026` */
export const monthName = (date: LocalDate): string => formats.month.format(noon(date));
/** `Thu` */
export const weekdayName = (date: LocalDate): string => formats.weekday.format(noon(date));

/** `14:30`, or with seconds `14:30:02`, on the wall in that zone. */
export function clockTime(instant: Instant, zone: Zone, seconds = false): string {
  return new Intl.DateTimeFormat(LOCALE, {
    hour: '2-digit',
    minute: '2-digit',
    ...(seconds ? { second: '2-digit' } : {}),
    timeZone: zone,
  }).format(new Date(instant));
}

/** `26 Nov 14:30` on the wall in that zone. */
export function dayAndTime(instant: Instant, zone: Zone): string {
  const day = new Intl.DateTimeFormat(LOCALE, { day: 'numeric', month: 'short', timeZone: zone }).format(
    new Date(instant),
  );
  return `${day} ${clockTime(instant, zone)}`;
}

/** `3.1 MB`, `420 kB` */
export function fileSize(bytes: number): string {
  return bytes >= 1_000_000
    ? `${(bytes / 1_000_000).toLocaleString(LOCALE, { maximumFractionDigits: 1 })} MB`
    : `${Math.max(1, Math.round(bytes / 1000))} kB`;
}
