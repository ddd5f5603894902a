import type { LeftOut, LeftOutReason } from './leftOut';
import type { Block } from './readingText';

/** A stretch of a source on its way into a reading text: one line of words, or what is left out. */
export interface RawBlock extends Omit<Block, 'start' | 'end'> {
  text: string;
  /** Why it is not read; absent for what is. Its text is to the letter then, lines and all. */
  reason?: LeftOutReason;
  /** What stood in it and was taken out of its words. */
  marks?: readonly LeftOut[];
  /** What would have been and stays. */
  takenIn?: readonly LeftOut[];
}

/** A block on one line: white space as single spaces, but for those that do not break. */
export const onOneLine = (text: string): string =>
  text.replace(/\s+/g, (space) => (space.length === 1 && space !== '\n' && space !== '\t' ? space : ' ')).trim();
