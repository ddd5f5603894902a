import type { Format } from '../rulesheets/types';
import { addDays } from '../time/days';
import type { LocalDate, LocalTime } from '../time/plan';

/** A post that is not out though its day passed. */
interface MissedPost {
  id: string;
  channelId: string;
  format: Format;
  date: LocalDate;
  time: LocalTime | null;
}

/** A place in a channel's rhythm that nothing fills. */
interface FreeOpening {
  channelId: string;
  date: LocalDate;
  time: LocalTime;
  /** Null for any. */
  format: Format | null;
}

/** Where a missed post would go. */
export interface CarriedTo {
  id: string;
  /** Null where the rhythm of its channel has no place for it. */
  to: { date: LocalDate; time: LocalTime | null } | null;
}

/**
 * Proposes a new place for each post that was missed: on a channel with a rhythm its next opening of that format that nothing fills, the
 * post that was due first before the others; on one without, the next day that has none of them, at its own time.
 *
 * @param openings in the order of time
 * @param rhythmic channels that have a rhythm
 * @returns in the order in which they were due
 */
export function carryOver(
  missed: readonly MissedPost[],
  openings: readonly FreeOpening[],
  { tomorrow, rhythmic }: { tomorrow: LocalDate; rhythmic: ReadonlySet<string> },
): CarriedTo[] {
  const taken = new Set<FreeOpening>();
  const days = new Map<string, LocalDate>();
  const dueAt = ({ date, time }: MissedPost) => `${date} ${time ?? '99:99'}`;
  const inOrder = [...missed].sort((one, other) =>
    dueAt(one) < dueAt(other) ? -1 : dueAt(one) > dueAt(other) ? 1 : 0,
  );
  return inOrder.map(({ id, channelId, format, time }) => {
    if (!rhythmic.has(channelId)) {
      const date = days.get(channelId) ?? tomorrow;
      days.set(channelId, addDays(date, 1));
      return { id, to: { date, time } };
    }
    const opening = openings.find(
      (one) => one.channelId === channelId && (one.format === null || one.format === format) && !taken.has(one),
    );
    if (!opening) return { id, to: null };
    taken.add(opening);
    return { id, to: { date: opening.date, time: opening.time } };
  });
}
