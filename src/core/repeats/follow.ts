import { compareText } from '../compareText';
import { daysBetween } from '../time/days';
import type { LocalDate, LocalTime } from '../time/plan';
import type { Round } from './rounds';

/** A post of a repeat, as far as a changed rule places it. */
interface PlacedPost {
  id: string;
  number: number;
  date: LocalDate | null;
}

/**
 * Where posts go that follow a changed rule: each to the next round of which no other post of the repeat has the day, in the order of their
 * numbers, so that no round between is left without one. Posts for which no round is left go to the tray.
 *
 * @param rounds in their order, at least as many as posts and days taken
 * @param taken days on which other posts of the repeat stand
 * @returns each post's day, and the last round that has one; null where none has
 */
export function followRule(
  posts: readonly PlacedPost[],
  rounds: readonly Round[],
  taken: ReadonlySet<LocalDate>,
): { days: Map<string, LocalDate | null>; lastRound: LocalDate | null } {
  const inOrder = [...posts].sort((one, other) => one.number - other.number);
  const days = new Map<string, LocalDate | null>();
  let lastRound: LocalDate | null = null;
  let next = 0;
  for (const { id } of inOrder) {
    while (next < rounds.length && taken.has(rounds[next]!.day)) lastRound = rounds[next++]!.round;
    const place = rounds[next++];
    days.set(id, place?.day ?? null);
    if (place) lastRound = place.round;
  }
  return { days, lastRound };
}

/**
 * The rounds from the one on that lies nearest to a day, of two as near the earlier.
 *
 * @param rounds in their order
 */
export function roundsFromNear(rounds: readonly Round[], day: LocalDate): readonly Round[] {
  const near = rounds.reduce<number>((best, round, at) => {
    const far = (of: Round) => Math.abs(daysBetween(of.day, day));
    return far(round) < far(rounds[best]!) ? at : best;
  }, 0);
  return rounds.slice(near);
}

/** A post of a repeat, as far as its number depends on it. */
interface NumberedPost extends PlacedPost {
  time: LocalTime | null;
  /** A published post keeps its number. */
  isPublished: boolean;
}

/**
 * The numbers that posts of a repeat have, so that they rise with their days: those that are not published deal their numbers out among
 * themselves, the smallest to the earliest; what has no day comes last.
 *
 * @returns the new number of each post that gets another
 */
export function numbersByDay(posts: readonly NumberedPost[]): Map<string, number> {
  const open = posts.filter(({ isPublished }) => !isPublished);
  const numbers = open.map(({ number }) => number).sort((one, other) => one - other);
  const whenOf = ({ date, time }: NumberedPost) => `${date ?? '9999-12-31'} ${time ?? '99:99'}`;
  const inOrder = [...open].sort((one, other) => compareText(whenOf(one), whenOf(other)) || one.number - other.number);
  return new Map(
    inOrder.flatMap(({ id, number }, at): [string, number][] => (number === numbers[at] ? [] : [[id, numbers[at]!]])),
  );
}
