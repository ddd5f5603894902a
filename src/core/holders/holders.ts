/** How often a process shows that it lives, in milliseconds. */
export const BEAT_EVERY_MS = 15_000;
/**
 * How long the beat of a process has to be seen standing still before what it holds is taken over, in milliseconds.
 *
 * @internal
 */
export const LEASE_MS = 90_000;

/** The beat of a process, as it stands in the database. */
export interface Beat {
  id: string;
  /** Grows while the process lives. */
  beat: number;
}

/** A beat, and since when it has been seen unchanged: milliseconds of a clock that only goes forward. */
export type SeenBeats = ReadonlyMap<string, { beat: number; sinceMs: number }>;

/**
 * Looks at the beats of other processes. One has stopped when its beat was seen unchanged for `LEASE_MS` by the steady clock of
 * whoever looks; clocks on the wall, which jump and are asleep with their machine, have no say in it.
 *
 * @param seen what the last look saw
 * @param nowMs by the looking process's own steady clock, in milliseconds
 * A beat seen at 5 first at 0 ms and still at 5 at 90,000 ms has stopped; at 6 by then it has not
 */
export function lookAtBeats(
  seen: SeenBeats,
  beats: readonly Beat[],
  nowMs: number,
): { seen: SeenBeats; stopped: Beat[] } {
  const next = new Map(
    beats.map(({ id, beat }) => {
      const before = seen.get(id);
      return [id, before?.beat === beat ? before : { beat, sinceMs: nowMs }] as const;
    }),
  );
  return { seen: next, stopped: beats.filter(({ id }) => nowMs - next.get(id)!.sinceMs >= LEASE_MS) };
}
