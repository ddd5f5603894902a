import { dateOf, dayNumber } from '../time/days';
import type { LocalDate } from '../time/plan';
import type { LeadUnit } from './step';
import { countWorkdays, workdayAtOrBefore } from './workdays';

/**
 * A step as far as its day depends on it.
 *
 * @internal
 */
export interface CountedStep {
  /** Days before publishing; negative for after it. */
  lead: number;
  leadIn: LeadUnit;
  /** A day it was put on; null for none. */
  pinned: LocalDate | null;
  /** The day it was done on; null while it is not. */
  doneOn: LocalDate | null;
}

/**
 * Counts the steps of a post back from its day. Each unpinned step falls `lead` days before it, in working days of whoever
 * does it or in calendar days. Order is kept: a step that would fall after a later one is pulled to that one's day (the last
 * working day at or before it, where it counts in working days). A pinned step never moves, whether it keeps the order or
 * not. What is done stays on the day it was done and holds nobody back.
 *
 * It depends on nothing but what is given, so moving a post there and back restores every day.
 *
 * @param steps in the order they are done
 * @param isWorkedBy whether whoever does the step works on a day, given as days from 1 January 1970
 */
export function countBack<S extends CountedStep>(
  publishingDay: LocalDate,
  steps: readonly S[],
  isWorkedBy: (step: S) => (day: number) => boolean,
): LocalDate[] {
  const anchor = dayNumber(publishingDay);
  const counted: LocalDate[] = new Array(steps.length);
  const known = new Map<(day: number) => boolean, Map<number, number>>();
  let bound = Infinity;
  for (let index = steps.length - 1; index >= 0; index--) {
    const step = steps[index]!;
    if (step.doneOn !== null) {
      counted[index] = step.doneOn;
      continue;
    }
    if (step.pinned !== null) {
      counted[index] = step.pinned;
      bound = Math.min(bound, dayNumber(step.pinned));
      continue;
    }
    const isWorked = isWorkedBy(step);
    const own = step.leadIn === 'calendar' ? anchor - step.lead : ownDay(anchor, step.lead, isWorked, known);
    if (own <= bound) bound = own;
    else if (step.leadIn === 'working') bound = workdayAtOrBefore(bound, isWorked);
    counted[index] = dateOf(bound);
  }
  return counted;
}

/** The working day of a lead, counted once for each lead and person. */
function ownDay(
  anchor: number,
  lead: number,
  isWorked: (day: number) => boolean,
  known: Map<(day: number) => boolean, Map<number, number>>,
): number {
  let leads = known.get(isWorked);
  if (!leads) known.set(isWorked, (leads = new Map()));
  let day = leads.get(lead);
  if (day === undefined) leads.set(lead, (day = countWorkdays(anchor, lead, isWorked)));
  return day;
}

/** The pinned steps, of those in their order, that stand after the day of an open step that comes later. */
export function orderBreakers<S extends { day: LocalDate | null; pinned: LocalDate | null; doneOn: LocalDate | null }>(
  steps: readonly S[],
): S[] {
  return steps.filter(
    ({ pinned, doneOn }, index) =>
      pinned !== null &&
      doneOn === null &&
      steps.slice(index + 1).some((later) => later.doneOn === null && later.day !== null && later.day < pinned),
  );
}

/** How a step stands. `squeezed`: its day lay before the day on which it was planned. `late`: its day has passed. */
export type StepState = 'done' | 'squeezed' | 'late' | 'today' | 'ahead' | 'undated';

/** How a step stands today. What was squeezed from the start is not called late: nobody missed it. */
export function stepState(
  step: { day: LocalDate | null; doneOn: LocalDate | null; pinned: LocalDate | null; plannedOn: LocalDate | null },
  today: LocalDate,
): StepState {
  if (step.doneOn !== null) return 'done';
  if (step.day === null) return 'undated';
  if (step.pinned === null && step.plannedOn !== null && step.day < step.plannedOn) return 'squeezed';
  if (step.day < today) return 'late';
  return step.day === today ? 'today' : 'ahead';
}

/** How many steps of a post are squeezed and late, in words; empty when none is. */
export function squeezeWords(states: readonly StepState[]): string {
  const count = (state: StepState) => states.filter((one) => one === state).length;
  const [squeezed, late] = [count('squeezed'), count('late')];
  return [squeezed > 0 ? `${squeezed} with too little time` : '', late > 0 ? `${late} late` : '']
    .filter(Boolean)
    .join(', ');
}
