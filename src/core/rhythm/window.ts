import { accept, refuse, type Result } from '../refusal';
import { minutesOf, timeOf } from '../time/days';
import type { LocalTime } from '../time/plan';

/** Some time from one minute on, before another of the same day. */
export interface Window {
  from: LocalTime;
  until: LocalTime;
}

/** Minutes that a chosen minute may keep from the other posts of its channel. */
export const DISTANCE_MINUTES = { least: 0, most: 720, usual: 15 } as const;

/** Whether it is a number of minutes that posts of a channel may lie apart. */
export const isDistance = (minutes: number): boolean =>
  Number.isInteger(minutes) && minutes >= DISTANCE_MINUTES.least && minutes <= DISTANCE_MINUTES.most;

/** Checks a window. Refused: one that ends before it begins, or is shorter than the distance its channel keeps. */
export function readWindow({ from, until }: Window, distance: number): Result<true> {
  const length = minutesOf(until) - minutesOf(from);
  if (length <= 0) return refuse('badWindow', `The window ends at ${until}, before it begins at ${from}.`, 'until');
  return length >= distance
    ? accept(true)
    : refuse(
        'shortWindow',
        `The window of ${length} minutes is shorter than the ${distance} minutes that this channel keeps between posts.`,
        'until',
      );
}

/**
 * A minute of a window, by chance: the same seed gives the same one. It keeps the distance from the other posts where any minute does;
 * else it lies as far from them as may be.
 *
 * @param others when the other posts of the channel are that day
 * @param distance minutes
 * @param mayBe whether something may leave at a minute: it exists that day, and is still to come
 * @returns null where no minute of the window may be
 */
export function chooseMinute(
  { from, until }: Window,
  others: readonly LocalTime[],
  { distance, seed, mayBe }: { distance: number; seed: string; mayBe: (time: LocalTime) => boolean },
): LocalTime | null {
  const taken = others.map(minutesOf);
  const [first, end] = [minutesOf(from), minutesOf(until)];
  const minutes = Array.from({ length: Math.max(0, end - first) }, (_, at) => first + at).filter((minute) =>
    mayBe(timeOf(minute)),
  );
  if (minutes.length === 0) return null;
  const apart = (minute: number) => taken.reduce((least, other) => Math.min(least, Math.abs(other - minute)), Infinity);
  const farthest = minutes.reduce((most, minute) => Math.max(most, apart(minute)), 0);
  const wanted = Math.min(distance, farthest);
  const free = minutes.filter((minute) => apart(minute) >= wanted);
  return timeOf(free[hashOf(seed) % free.length]!);
}

/** FNV-1a, 32 bits, of a text’s UTF-16 units (draft-eastlake-fnv). */
function hashOf(text: string): number {
  let hash = 0x811c9dc5;
  for (let at = 0; at < text.length; at++) hash = Math.imul(hash ^ text.charCodeAt(at), 0x01000193) >>> 0;
  // The low bits of FNV are not spread well over few values, so the high ones are folded in.
  return (hash ^ (hash >>> 15)) >>> 0;
}
