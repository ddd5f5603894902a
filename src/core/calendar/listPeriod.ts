import { addDays } from '../time/days';
import type { LocalDate } from '../time/plan';
import { addMonths } from './months';

/** How long a time the list shows: from a month before the day asked for to two months after, or whole months from its own on, or its year. */
export const LIST_PERIODS = ['around', 'month', 'quarter', 'year'] as const;
export type ListPeriod = (typeof LIST_PERIODS)[number];

/** What people read for each. */
export const LIST_PERIOD_LABELS: Record<ListPeriod, string> = {
  around: 'three months around the day',
  month: 'one month',
  quarter: 'three months from this one',
  year: 'one year',
};

/** The first and last day that the list shows. */
export function spanOfPeriod(period: ListPeriod, date: LocalDate): { from: LocalDate; to: LocalDate } {
  const month = addMonths(date, 0);
  switch (period) {
    case 'around':
      return { from: addDays(date, -31), to: addDays(date, 62) };
    case 'month':
      return { from: month, to: addDays(addMonths(month, 1), -1) };
    case 'quarter':
      return { from: month, to: addDays(addMonths(month, 3), -1) };
    case 'year':
      return { from: `${date.slice(0, 4)}-01-01`, to: `${date.slice(0, 4)}-12-31` };
  }
}

/** How many months the list is turned at once. */
export const monthsTurned = (period: ListPeriod): number => ({ around: 1, month: 1, quarter: 3, year: 12 })[period];
