import type { ExtractKind } from '@/core/extracts/extracts';

/** A stretch of a text that is marked in it. */
interface Mark {
  key: string;
  kind: ExtractKind | 'clip';
  state: 'accepted' | 'proposed';
  start: number;
  end: number;
}

/** A mark with its short name: the letter of its kind and its number among those of that kind, in the order of the text. */
export interface NamedMark extends Mark {
  sign: string;
}

/** A run of text that lies in the same marks throughout. */
interface Run {
  start: number;
  end: number;
  marks: readonly NamedMark[];
  /** Marks that end with it. */
  ending: readonly NamedMark[];
}

const LETTERS: Record<Mark['kind'], string> = {
  quote: 'Q',
  point: 'P',
  number: 'N',
  question: '?',
  listStep: 'S',
  clip: 'C',
};

/** Gives marks their short names: those that are kept have theirs for good, the others get what is free, in the order of the text. */
export function nameMarks(
  marks: readonly (Mark & { sign?: string })[],
  others: readonly { sign?: string }[] = [],
): NamedMark[] {
  const taken = new Set([...marks, ...others].flatMap(({ sign }) => sign ?? []));
  const counts = new Map<string, number>();
  return [...marks]
    .sort((one, other) => one.start - other.start || one.end - other.end)
    .map((mark) => {
      if (mark.sign) return { ...mark, sign: mark.sign };
      const letter = LETTERS[mark.kind];
      let count = (counts.get(letter) ?? 0) + 1;
      while (taken.has(`${letter}${count}`)) count++;
      counts.set(letter, count);
      return { ...mark, sign: `${letter}${count}` };
    });
}

/** Cuts a stretch of text into runs at the edges of the marks that touch it. */
export function runsOf(start: number, end: number, marks: readonly NamedMark[]): Run[] {
  const own = marks.filter((mark) => mark.start < end && mark.end > start);
  const edges = own.flatMap((mark) => [mark.start, mark.end]).filter((edge) => edge > start && edge < end);
  const cuts = [...new Set([start, ...edges, end])].sort((one, other) => one - other);
  return cuts.slice(1).map((to, at) => {
    const from = cuts[at]!;
    return {
      start: from,
      end: to,
      marks: own.filter((mark) => mark.start <= from && mark.end >= to),
      ending: own.filter((mark) => mark.end === to),
    };
  });
}

/** The sentences that a stretch touches, as one stretch from the first one's beginning to the last one's end. */
export function snapped(
  stretch: { start: number; end: number },
  sentences: readonly { start: number; end: number }[],
): { start: number; end: number } {
  const touched = sentences.filter(({ start, end }) => start < stretch.end && end > stretch.start);
  return touched.length === 0 ? stretch : { start: touched[0]!.start, end: touched.at(-1)!.end };
}

/** The words of a text, as edges to move by. */
export const wordsOf = (text: string): { start: number; end: number }[] =>
  [...text.matchAll(/\S+/gu)].map(({ 0: word, index }) => ({ start: index, end: index + word.length }));

/** An extract whose first or last edge is moved by a sentence, or by whatever else is given; itself where there is none there, or nothing would be left. */
export function moveEdge<S extends { start: number; end: number }>(
  extract: S,
  edge: 'start' | 'end',
  by: -1 | 1,
  sentences: readonly { start: number; end: number }[],
): S {
  const edges = sentences.map((sentence) => sentence[edge]);
  const to = by > 0 ? edges.find((at) => at > extract[edge]) : edges.findLast((at) => at < extract[edge]);
  const next = to === undefined ? extract : { ...extract, [edge]: to };
  return next.start < next.end ? next : extract;
}
