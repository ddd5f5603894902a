import { compareText } from '../compareText';
import type { RhythmEntry } from './entry';

type Entry = Omit<RhythmEntry, 'id'>;

/** A pause of a rhythm: a name for some days. */
interface Pause {
  name: string;
  from: string;
  to: string;
}

/** What a thing says, whatever the order of its fields. */
const said = (value: object): string =>
  JSON.stringify(value, (_key, part: unknown) =>
    part !== null && typeof part === 'object' && !Array.isArray(part)
      ? Object.fromEntries(Object.entries(part).sort(([a], [b]) => compareText(a, b)))
      : part,
  );

const allOf = (things: readonly object[]): string => things.map(said).sort().join('\n');

/** Whether two rhythms ask for the same, in whatever order their entries and pauses are written down. */
export const sameRhythm = (
  one: { entries: readonly Entry[]; pauses: readonly Pause[] },
  other: { entries: readonly Entry[]; pauses: readonly Pause[] },
): boolean => allOf(one.entries) === allOf(other.entries) && allOf(one.pauses) === allOf(other.pauses);
