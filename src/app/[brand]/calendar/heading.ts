import { spanOfPeriod, type ListPeriod } from '@/core/calendar/listPeriod';
import type { LocalDate } from '@/core/time/plan';
import { monthName, spanName, spokenDate } from '@/ui/format';
import { KEPT_PARAMETERS, type ViewName } from './view';

/** The heading of the calendar: the span it shows. */
export function titleOf(view: ViewName, date: LocalDate, dates: readonly LocalDate[], period: ListPeriod): string {
  switch (view) {
    case 'lanes':
      return spanName(dates[0]!, dates.at(-1)!);
    case 'month':
      return monthName(date);
    case 'day':
      return spokenDate(date);
    case 'stages':
      return 'By stage';
    case 'list':
      return listTitle(date, period);
  }
}

function listTitle(date: LocalDate, period: ListPeriod): string {
  const { from, to } = spanOfPeriod(period, date);
  if (period === 'around') return `Around ${monthName(date)}`;
  if (period === 'year') return date.slice(0, 4);
  return period === 'month' ? monthName(from) : `${monthName(from)} – ${monthName(to)}`;
}

/** The part of the address that a saved view keeps, in a steady order. */
export function presentAddress(query: Record<string, string | null>): string {
  const kept = KEPT_PARAMETERS.flatMap((name) => (query[name] ? [[name, query[name]]] : []));
  return new URLSearchParams(kept as string[][]).toString();
}

/** The first and last index of the week that holds a date, within two weeks. */
export const weekOf = (dates: readonly LocalDate[], date: LocalDate): [number, number] =>
  dates.indexOf(date) >= 7 ? [7, 14] : [0, 7];
