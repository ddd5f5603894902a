import { addDays } from '../time/days';
import type { LocalDate } from '../time/plan';
import { comesRound, type RepeatRule } from './rule';

/** A repeat as far as its next rounds depend on it. */
interface RepeatRounds {
  rule: RepeatRule;
  from: LocalDate;
  to: LocalDate | null;
  /** Days before the round on which its post is published. */
  daysBefore: number;
}

/** A round, and the day of its post: the round itself, or so many days before it. */
export interface Round {
  round: LocalDate;
  day: LocalDate;
}

const NONE: ReadonlySet<LocalDate> = new Set();

/**
 * The next rounds of a repeat, at most `count`; fewer where it ends before, or where no more days are known.
 *
 * @param after the round after which they lie, and the day after which their posts lie: yesterday at the least
 * @param known the days of the date to plan around that its rule names
 */
export function nextRounds(
  repeat: RepeatRounds,
  after: { round: LocalDate | null; day: LocalDate },
  count: number,
  known: ReadonlySet<LocalDate> = NONE,
): Round[] {
  const { rule, from, to, daysBefore } = repeat;
  const firstDay = addDays(after.day, 1 + daysBefore);
  const start = [from, firstDay, ...(after.round === null ? [] : [addDays(after.round, 1)])].sort().at(-1)!;
  const last = addDays(start, daysWithin(rule, count));
  const rounds: Round[] = [];
  for (let date = start; date <= last && rounds.length < count; date = addDays(date, 1)) {
    if (to !== null && date > to) break;
    if (comesRound(rule, date, from, known)) rounds.push({ round: date, day: addDays(date, -daysBefore) });
  }
  return rounds;
}

/** Days within which so many rounds lie at the most: a month may lack the date that is asked for. */
function daysWithin(rule: RepeatRule, count: number): number {
  switch (rule.kind) {
    case 'weekly':
      return 7 * rule.every * (count + 1);
    case 'monthlyDate':
    case 'monthlyWeekday':
      return 62 * (count + 1);
    default:
      return 367 * (count + 1);
  }
}
