import { daysBetween } from '../time/days';
import type { LocalDate } from '../time/plan';

/** A post of a piece, as its family is drawn. */
export interface FamilyMember {
  id: string;
  channelId: string;
  title: string;
  /** Null for one without a date: it has no place in the drawing. */
  date: LocalDate | null;
  isPublished: boolean;
  /** The post that it is again; null for one that is none of another. */
  encoreOf: string | null;
}

/** A member in its place. */
interface PlacedMember extends FamilyMember {
  date: LocalDate;
  /** 0 for the first day of the family to 1 for its last. */
  at: number;
}

/** The family of a piece: a line for each channel, on one scale of time. */
interface Family {
  from: LocalDate;
  to: LocalDate;
  lines: { channelId: string; members: PlacedMember[] }[];
  /** From each post to the next that is it again, by their places on a line. */
  again: { channelId: string; from: number; to: number }[];
  /** Where today is; null outside of the span. */
  today: number | null;
  undated: number;
}

/**
 * Places the dated posts of a piece on one scale of time, channels in the order given.
 *
 * @returns null where none has a date
 */
export function familyOf(
  members: readonly FamilyMember[],
  channelIds: readonly string[],
  today: LocalDate,
): Family | null {
  const dated = members.filter((one): one is FamilyMember & { date: LocalDate } => one.date !== null);
  if (dated.length === 0) return null;
  const days = dated.map(({ date }) => date).sort();
  const [from, to] = [days[0]!, days.at(-1)!];
  const span = Math.max(1, daysBetween(from, to));
  const place = (date: LocalDate) => (from === to ? 0.5 : daysBetween(from, date) / span);
  const lines = channelIds.flatMap((channelId) => {
    const own = dated
      .filter((one) => one.channelId === channelId)
      .map((one) => ({ ...one, at: place(one.date) }))
      .sort((one, other) => (one.date < other.date ? -1 : one.date > other.date ? 1 : one.id < other.id ? -1 : 1));
    return own.length > 0 ? [{ channelId, members: own }] : [];
  });
  const again = lines.flatMap(({ channelId, members: own }) => {
    const lastOf = new Map<string, PlacedMember>();
    return own.flatMap((one) => {
      const root = one.encoreOf ?? one.id;
      const before = lastOf.get(root);
      lastOf.set(root, one);
      return before ? [{ channelId, from: before.at, to: one.at }] : [];
    });
  });
  const isWithin = today >= from && today <= to;
  return { from, to, lines, again, today: isWithin ? place(today) : null, undated: members.length - dated.length };
}
