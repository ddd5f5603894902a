/**
 * Centrality of sentences in their text by TextRank (R. Mihalcea and P. Tarau, “TextRank: Bringing Order into Texts”, EMNLP
 * 2004): sentences are joined by the words they share, divided by the logarithms of their lengths (0 where one of them is 0),
 * and each gets from its neighbours what these have, with damping 0.85.
 *
 * @param sentences each as its content words; repeated words count once
 * @returns a score for each, at least 0.15, about 1 in the mean; 0 for a sentence without words
 */
export function textRank(sentences: readonly (readonly string[])[]): Float64Array {
  const sets = sentences.map((words) => new Set(words));
  const logs = sets.map((words) => (words.size > 0 ? Math.log(words.size) : 0));
  const { starts, neighbours, weights } = graphOf(sets, logs);
  const sums = new Float64Array(sets.length);
  for (let at = 0; at < sets.length; at++)
    for (let edge = starts[at]!; edge < starts[at + 1]!; edge++) sums[at]! += weights[edge]!;
  let scores: Float64Array = new Float64Array(sets.length).fill(1);
  for (let round = 0; round < ROUNDS; round++) {
    const next = new Float64Array(sets.length).fill(1 - DAMPING);
    for (let at = 0; at < sets.length; at++)
      for (let edge = starts[at]!; edge < starts[at + 1]!; edge++) {
        const other = neighbours[edge]!;
        next[at]! += (DAMPING * weights[edge]! * scores[other]!) / sums[other]!;
      }
    const change = next.reduce((most, score, at) => Math.max(most, Math.abs(score - scores[at]!)), 0);
    scores = next;
    if (change < ENOUGH) break;
  }
  return scores.map((score, at) => (sets[at]!.size === 0 ? 0 : score));
}

const DAMPING = 0.85;
/** Rounds after which scores are taken as they are. */
const ROUNDS = 40;
/** A change that is none any more. */
const ENOUGH = 1e-4;
/** A word in more than this share of the sentences joins none: it would join all of them. */
const COMMON = 0.25;

interface Graph {
  /** The edges of sentence i are those from `starts[i]` up to `starts[i + 1]`. */
  starts: Int32Array;
  neighbours: Int32Array;
  weights: Float64Array;
}

function graphOf(sets: readonly ReadonlySet<string>[], logs: readonly number[]): Graph {
  const places = new Map<string, number[]>();
  sets.forEach((words, at) => {
    for (const word of words) {
      const known = places.get(word);
      if (known) known.push(at);
      else places.set(word, [at]);
    }
  });
  const most = Math.max(12, sets.length * COMMON);
  const shared = new Float64Array(sets.length);
  const starts = new Int32Array(sets.length + 1);
  const neighbours: number[] = [];
  const weights: number[] = [];
  sets.forEach((words, at) => {
    const touched: number[] = [];
    for (const word of words) {
      const others = places.get(word)!;
      if (others.length > most) continue;
      for (const other of others) {
        if (other === at) continue;
        if (shared[other] === 0) touched.push(other);
        shared[other]!++;
      }
    }
    for (const other of touched) {
      const logarithms = logs[at]! + logs[other]!;
      if (logarithms > 0) {
        neighbours.push(other);
        weights.push(shared[other]! / logarithms);
      }
      shared[other] = 0;
    }
    starts[at + 1] = neighbours.length;
  });
  return { starts, neighbours: Int32Array.from(neighbours), weights: Float64Array.from(weights) };
}

/** How much two sets of words overlap: the share of the smaller one that both have; 0 where one is empty. */
export function overlapOf(one: ReadonlySet<string>, other: ReadonlySet<string>): number {
  const [small, large] = one.size < other.size ? [one, other] : [other, one];
  if (small.size === 0) return 0;
  let shared = 0;
  for (const word of small) if (large.has(word)) shared++;
  return shared / small.size;
}
