import { addDays, startOfWeek } from '../time/days';
import { type LocalDate } from '../time/plan';

/** A day's cell in the month arrangement. */
export interface MonthDay {
  date: LocalDate;
  /** Day of the month, 1 to 31. */
  day: number;
  /** False for the days before and after that fill the first and last week. */
  inMonth: boolean;
}

/**
 * The weeks that show a month: whole weeks of seven days, from the one holding its first day to the one holding its
 * last.
 *
 * @param month any date of the month
 * @param weekStart first day of the week, 1 for Monday to 7 for Sunday (ISO 8601)
 *
 * @example
 * monthWeeks('2027-02-10', 1).length // 4: February 2027 begins on a Monday and has 28 days
 */
export function monthWeeks(month: LocalDate, weekStart: number): MonthDay[][] {
  const first = `${month.slice(0, 7)}-01`;
  let date = startOfWeek(first, weekStart);
  const weeks: MonthDay[][] = [];
  do {
    const week: MonthDay[] = [];
    for (let weekday = 0; weekday < 7; weekday++) {
      week.push({ date, day: Number(date.slice(8)), inMonth: date.slice(0, 7) === first.slice(0, 7) });
      date = addDays(date, 1);
    }
    weeks.push(week);
  } while (date.slice(0, 7) === first.slice(0, 7));
  return weeks;
}
