import { compareText } from '../compareText';
import type { LocalDate, LocalTime } from '../time/plan';

/** A post as far as its place in a day depends on it. */
export interface Placed {
  id: string;
  date: LocalDate | null;
  time: LocalTime | null;
  callSign: string;
}

/** Order within a day: by time, those without a time last, then by call sign, then by id so that it never wavers. */
export function byTimeOfDay(a: Placed, b: Placed): number {
  return (
    compareText(a.time ?? '99:99', b.time ?? '99:99') || compareText(a.callSign, b.callSign) || compareText(a.id, b.id)
  );
}
