import type { RhythmEntry } from './entry';

/** What the first entry of a rhythm is until it is changed. */
const FIRST: Omit<RhythmEntry, 'id'> = {
  recurrence: { kind: 'weekly', weekday: 1, every: 1 },
  time: '09:00',
  format: null,
  theme: '',
  pillarId: null,
  from: null,
  to: null,
};

/**
 * The entry with which a rhythm goes on: as many days after the last one as that one lies after the one before it, at the same
 * time and for the same format; on the next weekday on which nothing is asked for at that time.
 */
export function nextEntry(entries: readonly RhythmEntry[]): Omit<RhythmEntry, 'id'> {
  const weekly = entries.flatMap((entry) =>
    entry.recurrence.kind === 'weekly' ? [{ ...entry, weekday: entry.recurrence.weekday }] : [],
  );
  const [before, last] = [weekly.at(-2), weekly.at(-1)];
  if (!last) return FIRST;
  const step = before ? (last.weekday - before.weekday + 7) % 7 || 1 : 1;
  const isTaken = (weekday: number) => weekly.some((one) => one.weekday === weekday && one.time === last.time);
  const days = Array.from({ length: 7 }, (_, more) => ((last.weekday - 1 + step + more) % 7) + 1);
  const weekday = days.find((day) => !isTaken(day)) ?? last.weekday;
  return { ...FIRST, recurrence: { kind: 'weekly', weekday, every: 1 }, time: last.time, format: last.format };
}
