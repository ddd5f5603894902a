import { guessLanguage, wordsOfLanguage } from '../extracts/languages';
import { contentWords, sentencesOf, wordsIn, type Sentence } from '../extracts/sentences';

/** Letters from which a paragraph is taken to be a talk that was written down in one line. */
const ENDLESS = 3_000;
/** Words that are held against each other on both sides of a place (Hearst: 20 words in each of 6 sequences). */
const WINDOW = 120;
/** Letters of a paragraph that is cut out, at least; and those from which it is cut once more. */
const PARAGRAPH = { least: 300, most: 1_500 } as const;

/**
 * Cuts a stretch without paragraphs where its subject turns, always between sentences: a place whose words on both sides have less
 * in common than at the places around it (TextTiling: M. Hearst, “TextTiling: Segmenting Text into Multi-paragraph Subtopic
 * Passages”, Computational Linguistics 23(1), 1997).
 *
 * @returns the paragraphs in their order; the text itself, alone, where it is no longer than people write
 */
export function cutAtTurns(text: string): string[] {
  if (text.length < ENDLESS) return [text];
  const language = guessLanguage(text);
  const known = wordsOfLanguage(language);
  const block = { kind: 'paragraph' as const, start: 0, end: text.length };
  const sentences = sentencesOf({ text, blocks: [block] }, language);
  if (sentences.length < 6) return [text];
  const words = sentences.map(({ start, end }) => contentWords(wordsIn(text.slice(start, end)), known));
  const depths = depthsOf(likenessAtGaps(words));
  const mean = depths.reduce((sum, depth) => sum + depth, 0) / depths.length;
  const deviation = Math.sqrt(depths.reduce((sum, depth) => sum + (depth - mean) ** 2, 0) / depths.length);
  const cuts = new Set(cutsIn(sentences, depths, mean - deviation / 2));
  const starts = [0, ...sentences.flatMap(({ start }, at) => (cuts.has(at) ? [start] : []))];
  return starts.map((start, at) => text.slice(start, starts[at + 1] ?? text.length).trim());
}

/** How alike the words before and after each place between two sentences are: the cosine of how often each stands there. */
function likenessAtGaps(words: readonly (readonly string[])[]): number[] {
  const flat = words.flat();
  let at = 0;
  return words.slice(0, -1).map((own) => {
    at += own.length;
    return cosine(countsOf(flat.slice(Math.max(0, at - WINDOW), at)), countsOf(flat.slice(at, at + WINDOW)));
  });
}

function countsOf(words: readonly string[]): Map<string, number> {
  const counts = new Map<string, number>();
  for (const word of words) counts.set(word, (counts.get(word) ?? 0) + 1);
  return counts;
}

function cosine(one: ReadonlyMap<string, number>, other: ReadonlyMap<string, number>): number {
  let both = 0;
  for (const [word, count] of one) both += count * (other.get(word) ?? 0);
  const square = (counts: ReadonlyMap<string, number>) =>
    [...counts.values()].reduce((sum, count) => sum + count * count, 0);
  return both === 0 ? 0 : both / Math.sqrt(square(one) * square(other));
}

/** How far likeness falls at each place, from the peaks before and after it. */
const depthsOf = (likeness: readonly number[]): number[] =>
  likeness.map((own, at) => {
    const peak = (step: 1 | -1) => {
      let high = own;
      for (let place = at + step; (likeness[place] ?? -1) >= high; place += step) high = likeness[place]!;
      return high;
    };
    return peak(-1) + peak(1) - 2 * own;
  });

/** The sentences that begin a paragraph: the deepest places first, so that none is too short, and more where one is too long. */
function cutsIn(sentences: readonly Sentence[], depths: readonly number[], least: number): number[] {
  const byDepth = depths.map((depth, at) => ({ depth, at: at + 1 })).sort((one, other) => other.depth - one.depth);
  const end = sentences.at(-1)!.end;
  const cuts: number[] = [];
  const around = (at: number) => {
    const start = sentences[at]!.start;
    const before = cuts.filter((cut) => cut <= at).map((cut) => sentences[cut]!.start);
    const after = cuts.filter((cut) => cut > at).map((cut) => sentences[cut]!.start);
    return { start, from: Math.max(0, ...before), to: Math.min(end, ...after) };
  };
  for (const { depth, at } of byDepth) {
    const { start, from, to } = around(at);
    if (start - from < PARAGRAPH.least || to - start < PARAGRAPH.least) continue;
    if (depth > least || to - from > PARAGRAPH.most) cuts.push(at);
  }
  return cuts;
}
