import { diffLines, diffWordsWithSpace } from 'diff';

/** Milliseconds that looking for differences may take: its time grows with the square of how much differs. */
const MOST_MS = 300;

/** A stretch of two texts: in both, or in one of them only. */
interface Difference {
  value: string;
  added?: boolean;
  removed?: boolean;
}

/** Two texts as one, by words; by lines where too much differs for that, and one whole after the other where even that is too much. */
export function differencesOf(from: string, to: string): Difference[] {
  const whole = [
    { value: from, removed: true },
    { value: to, added: true },
  ];
  return (
    diffWordsWithSpace(from, to, { timeout: MOST_MS }) ??
    diffLines(from, to, { timeout: MOST_MS }) ??
    whole.filter(({ value }) => value !== '')
  );
}
