import { addMonths } from '../calendar/months';
import type { Stage } from '../stages/stages';
import { addDays, startOfWeek } from '../time/days';
import type { LocalDate } from '../time/plan';
import type { Fitness } from './departure';

/** What the timetable shows: the days to come, or one stretch of days that one can step through. */
export const TIMETABLE_VIEWS = ['days', 'today', 'week', 'ready', 'month'] as const;
export type TimetableView = (typeof TIMETABLE_VIEWS)[number];

/** What people read for each. */
export const TIMETABLE_LABELS: Record<TimetableView, string> = {
  days: 'Next days',
  today: 'Today',
  week: 'This week',
  ready: 'Ready this week',
  month: 'This month',
};

/** Days that the days to come are, the first included. */
const NEXT_DAYS = 8;
const WEEK = 7;

/** A stretch of days, both included. */
interface Days {
  from: LocalDate;
  to: LocalDate;
}

/**
 * The days that a view shows.
 *
 * @param at any day of them; for the days to come the first
 * @param weekStart first day of the week, 1 for Monday to 7 for Sunday (ISO 8601)
 * @example daysOfView('month', '2026-02-11', 1) // { from: '2026-02-01', to: '2026-02-28' }
 */
export function daysOfView(view: TimetableView, at: LocalDate, weekStart: number): Days {
  if (view === 'today') return { from: at, to: at };
  if (view === 'days') return { from: at, to: addDays(at, NEXT_DAYS - 1) };
  if (view === 'month') return { from: addMonths(at, 0), to: addDays(addMonths(at, 1), -1) };
  const from = startOfWeek(at, weekStart);
  return { from, to: addDays(from, WEEK - 1) };
}

/**
 * A day of the same view one stretch earlier or later.
 *
 * @example stepOfView('week', '2026-11-23', 1, -1) // '2026-11-22'
 */
export function stepOfView(view: TimetableView, at: LocalDate, weekStart: number, by: -1 | 1): LocalDate {
  const { from, to } = daysOfView(view, at, weekStart);
  if (by === 1) return addDays(to, 1);
  return view === 'days' ? addDays(from, -NEXT_DAYS) : addDays(from, -1);
}

/** Stages of which a view shows posts; empty for all that are not set aside. */
export const stagesOfView = (view: TimetableView): Stage[] =>
  view === 'ready' ? ['ready', 'scheduled', 'published'] : [];

/** How departures stand, as far as a total tells them apart. */
export const DEPARTURE_SORTS = ['toSend', 'published', 'trouble', 'notReady'] as const;
export type DepartureSort = (typeof DEPARTURE_SORTS)[number];

/** What people read for each. */
export const DEPARTURE_SORT_LABELS: Record<DepartureSort, string> = {
  toSend: 'to send',
  published: 'published',
  trouble: 'in trouble',
  notReady: 'not scheduled',
};

const SORT_OF: Record<Fitness, DepartureSort> = {
  out: 'published',
  fit: 'toSend',
  sending: 'toSend',
  retrying: 'toSend',
  awaitsRelease: 'toSend',
  heldWithAll: 'toSend',
  handOver: 'toSend',
  handOverToCome: 'toSend',
  failed: 'trouble',
  held: 'trouble',
  unknown: 'trouble',
  notScheduled: 'notReady',
  notFit: 'notReady',
};

export const sortOf = (fitness: Fitness): DepartureSort => SORT_OF[fitness];

/** Who sends a post. */
export const SENDERS = ['bimlo', 'byHand'] as const;
export type Sender = (typeof SENDERS)[number];

/** What people read for each. */
export const SENDER_LABELS: Record<Sender, string> = { bimlo: 'by Bimlo', byHand: 'by hand' };

/** A line of the timetable as far as a filter and a total ask about it. */
interface Counted {
  fitness: Fitness;
  sender: Sender;
}

/**
 * The lines of a timetable in one sentence.
 *
 * @example totalWords([{ fitness: 'fit', sender: 'byHand' }, { fitness: 'out', sender: 'bimlo' }]) // '2 posts: 1 to send (1 by hand), 1 published'
 * @example totalWords([]) // 'no posts'
 */
export function totalWords(lines: readonly Counted[]): string {
  if (lines.length === 0) return 'no posts';
  const parts = DEPARTURE_SORTS.flatMap((sort) => {
    const own = lines.filter(({ fitness }) => sortOf(fitness) === sort);
    const byHand = sort === 'toSend' ? own.filter(({ sender }) => sender === 'byHand').length : 0;
    return own.length === 0
      ? []
      : [`${own.length} ${DEPARTURE_SORT_LABELS[sort]}${byHand > 0 ? ` (${byHand} by hand)` : ''}`];
  });
  return `${lines.length === 1 ? '1 post' : `${lines.length} posts`}: ${parts.join(', ')}`;
}
