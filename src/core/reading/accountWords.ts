import { counted, figure } from '../words';
import type { ReadingText } from './readingText';

const READ_WORDS = { markdown: 'as Markdown', plain: 'as plain text', said: 'as it was said' } as const;

/** How much of a text is read and how, and what is left out, in words. */
export function accountWords({
  as,
  words: { read, all },
  leftOut,
}: Pick<ReadingText, 'as' | 'words'> & { leftOut: readonly string[] }): string {
  const share = read === all ? `All ${counted(all, 'word')}` : `${figure(read)} of ${counted(all, 'word')}`;
  const left = leftOut.length === 0 ? '' : ` Left out: ${leftOut.join(', ')}.`;
  return `${share} read, ${READ_WORDS[as]}.${left}`;
}
