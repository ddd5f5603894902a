import { isQuick } from '@/core/reading/markdown';
import { readingOf, type TextToRead } from '@/core/reading/readSource';
import { readPlain, type ReadingText } from '@/core/reading/readingText';
import type { Same } from '@/core/pieces/reanchor';
import { inPool, TooMuchWorkError } from './pool';

/** Characters of some 30,000 words, and how long they may take to be read; and the same of the longest text, in milliseconds. */
const LIMITS = { usual: { characters: 180_000, ms: 2_000 }, longest: { characters: 1_000_000, ms: 10_000 } } as const;

/** How long a text of so many characters may take to be read, in milliseconds. */
export function readingLimitMs(characters: number): number {
  const { usual, longest } = LIMITS;
  const over = Math.max(0, characters - usual.characters) / (longest.characters - usual.characters);
  return Math.min(longest.ms, usual.ms + over * (longest.ms - usual.ms));
}

/**
 * Reads a piece's text: a short one without many marks at once, any other on a thread of the pool. One that takes longer than it may is
 * read as plain text, so that its piece can be opened and corrected.
 */
export async function readText(kept: TextToRead): Promise<ReadingText> {
  if (kept.cues.length > 0 || isQuick(kept.source)) return readingOf(kept);
  try {
    return await inPool<ReadingText>('reading', { kept }, readingLimitMs(kept.source.length));
  } catch (error) {
    if (!(error instanceof TooMuchWorkError)) throw error;
    return readPlain(kept.source);
  }
}

/** How long it may take to find what is the same in two texts, in milliseconds. */
const SAME_LIMIT_MS = 5_000;

/** What is the same in texts and those that they were corrected to; where that takes too long, nothing is. */
export async function findSame(pairs: readonly (readonly [before: string, after: string])[]): Promise<Same[][]> {
  try {
    return await inPool<Same[][]>('same', { pairs }, SAME_LIMIT_MS);
  } catch (error) {
    if (!(error instanceof TooMuchWorkError)) throw error;
    return pairs.map(() => []);
  }
}
