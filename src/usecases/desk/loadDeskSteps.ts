import { loadByDay, type DayLoad } from '@/core/prep/load';
import { workedOn } from '@/core/prep/workdays';
import { addDays, dayNumber } from '@/core/time/days';
import type { LocalDate } from '@/core/time/plan';
import type { Db } from '@/data/database/db';
import { workCalendars, type Person } from '@/data/people/people';
import { countOpenStepsOf, listOpenStepsOf, listUnownedSteps, type DeskStep } from '@/data/prep/steps';

/** Days after today that a desk shows. */
const AHEAD_DAYS = 7;
/** Steps a desk lists; the rest is counted. */
const DESK_STEPS = 200;
const UNOWNED_STEPS = 20;

/** A person's steps, by day. */
export interface DeskSteps {
  /** Before today and undone; squeezed ones among them never had their day. */
  late: DeskStep[];
  today: DeskStep[];
  ahead: DeskStep[];
  /** Minutes by day against the person's time; what is late counts for today. */
  loads: DayLoad[];
  /** How many are late in all, and how many lie beyond the days shown. */
  counts: { late: number; later: number };
  /** Steps of this brand within these days that nobody is named for. */
  unowned: DeskStep[];
}

/** Reads the open steps of a person over all brands, up to a week ahead. */
export async function loadDeskSteps(db: Db, person: Person, brandId: string, today: LocalDate): Promise<DeskSteps> {
  const to = addDays(today, AHEAD_DAYS);
  const [steps, counts, unowned, calendars] = await Promise.all([
    listOpenStepsOf(db, person.id, to, DESK_STEPS),
    countOpenStepsOf(db, person.id, today, to),
    listUnownedSteps(db, brandId, to, UNOWNED_STEPS),
    workCalendars(db, [person.id]),
  ]);
  const isWorked = workedOn(calendars.get(person.id)!);
  const dated = steps.map((step) => ({ day: step.day! < today ? today : step.day!, minutes: step.minutes }));
  return {
    late: steps.filter(({ day }) => day! < today),
    today: steps.filter(({ day }) => day === today),
    ahead: steps.filter(({ day }) => day! > today),
    loads: loadByDay(dated, (date) => (isWorked(dayNumber(date)) ? person.minutesPerDay : 0)),
    counts,
    unowned,
  };
}
