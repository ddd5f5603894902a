import { compareText } from '../compareText';
import type { LocalTime } from '../time/plan';
import type { RhythmEntry } from './entry';

/** Posts a week that a rhythm is suggested for, at most: two a day. */
export const MOST_A_WEEK = 14;

/** Times in turn, so that the channels of a brand do not all publish in the same minute. */
const TIMES: readonly LocalTime[] = ['10:00', '12:30', '17:00', '09:00', '15:30', '11:15', '18:00', '08:15'];
/** Of a second post on a day. */
const LATER_TIMES: readonly LocalTime[] = ['18:30', '19:15', '20:00', '17:45', '19:45', '18:45', '20:30', '16:45'];

/**
 * A rhythm of so many posts a week, their days as far apart as a week lets them.
 *
 * @param aWeek 0 to 14; with more than seven, some days have two
 * @param place the how-manieth channel of its brand it is for, from 0: days and times go on from one to the next
 * @throws RangeError for another number a week, or a place that is none
 */
export function suggestRhythm(aWeek: number, place: number): Omit<RhythmEntry, 'id'>[] {
  if (!Number.isInteger(aWeek) || aWeek < 0 || aWeek > MOST_A_WEEK) throw new RangeError(`no posts a week: ${aWeek}`);
  if (!Number.isInteger(place) || place < 0) throw new RangeError(`no place among channels: ${place}`);
  const entry = (weekday: number, time: LocalTime): Omit<RhythmEntry, 'id'> => ({
    recurrence: { kind: 'weekly', weekday, every: 1 },
    ...{ time, format: null, theme: '', pillarId: null, from: null, to: null },
  });
  const days = (many: number, shift: number) =>
    Array.from({ length: many }, (_, at) => ((Math.round((at * 7) / many) + shift) % 7) + 1);
  const first = days(Math.min(7, aWeek), place + 1).map((day) => entry(day, TIMES[place % TIMES.length]!));
  const second = days(Math.max(0, aWeek - 7), place + 1).map((day) =>
    entry(day, LATER_TIMES[place % LATER_TIMES.length]!),
  );
  return [...first, ...second].sort(
    (one, other) => weekdayOf(one) - weekdayOf(other) || compareText(one.time, other.time),
  );
}

const weekdayOf = ({ recurrence }: Pick<RhythmEntry, 'recurrence'>): number =>
  recurrence.kind === 'weekly' ? recurrence.weekday : 0;
