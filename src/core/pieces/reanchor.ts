import { diffArrays } from 'diff';

/** Edits beyond which a text counts as another one between its common beginning and end. */
const MOST_EDITS = 4_000;

/** A stretch that is the same in two texts. */
export interface Same {
  before: number;
  after: number;
  length: number;
}

/**
 * Follows offsets from a text to the same text corrected, by what is the same in both (E. Myers, “An O(ND) Difference Algorithm
 * and Its Variations”, 1986, over words). An offset inside what was replaced keeps its share of it.
 *
 * @param beforeLength, afterLength of the two texts, in UTF-16 units
 * @returns the offset in the corrected text that an offset of the text before has become
 */
function followSame(same: readonly Same[], beforeLength: number, afterLength: number): (offset: number) => number {
  return (offset) => {
    let at = -1;
    while (at + 1 < same.length && same[at + 1]!.before <= offset) at++;
    const last = same[at] ?? { before: 0, after: 0, length: 0 };
    const into = offset - last.before;
    if (into <= last.length) return last.after + into;
    const next = same[at + 1] ?? { before: beforeLength, after: afterLength, length: 0 };
    const [from, to] = [last.before + last.length, next.before];
    const share = to === from ? 1 : (offset - from) / (to - from);
    const begun = last.after + last.length;
    return Math.round(begun + share * (next.after - begun));
  };
}

/** What is the same in two texts, in their order. */
export function sameStretches(before: string, after: string): Same[] {
  const [one, other] = [wordsAndSpaces(before), wordsAndSpaces(after)];
  const changes = diffArrays(one, other, { maxEditLength: MOST_EDITS });
  if (!changes) return commonEnds(before, after);
  const same: Same[] = [];
  let [at, to] = [0, 0];
  for (const { added, removed, value } of changes) {
    const length = value.reduce((sum, word) => sum + word.length, 0);
    if (!added && !removed) same.push({ before: at, after: to, length });
    if (!added) at += length;
    if (!removed) to += length;
  }
  return same;
}

const wordsAndSpaces = (text: string): string[] => text.match(/\s+|[^\s]+/g) ?? [];

function commonEnds(before: string, after: string): Same[] {
  const most = Math.min(before.length, after.length);
  let head = 0;
  while (head < most && before[head] === after[head]) head++;
  let tail = 0;
  while (tail < most - head && before.at(-1 - tail) === after.at(-1 - tail)) tail++;
  return [
    { before: 0, after: 0, length: head },
    { before: before.length - tail, after: after.length - tail, length: tail },
  ];
}

/** Stretches of a text where they stand in the corrected one; those that are gone are left out. */
export function followStretches<S extends { start: number; end: number }>(
  stretches: readonly S[],
  before: string,
  after: string,
  same: readonly Same[] = sameStretches(before, after),
): S[] {
  if (stretches.length === 0 || before === after) return [...stretches];
  const follow = followSame(same, before.length, after.length);
  return stretches
    .map((stretch) => ({ ...stretch, start: follow(stretch.start), end: follow(stretch.end) }))
    .filter(({ start, end }) => end > start && after.slice(start, end).trim() !== '');
}
