import type { LocalDate } from '../time/plan';

/** The first day of the month `months` later. */
export function addMonths(month: LocalDate, months: number): LocalDate {
  const index = Number(month.slice(0, 4)) * 12 + Number(month.slice(5, 7)) - 1 + months;
  return `${String(Math.floor(index / 12)).padStart(4, '0')}-${String((index % 12) + 1).padStart(2, '0')}-01`;
}
