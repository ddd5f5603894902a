import { counted, figure } from '../words';
import type { ReadingText } from './readingText';

const READ_WORDS = { markdown: 'as Markdown', plain: 'as plain text', said: 'as it was said' } as const;

/**
 * How much of a text is read and how, and what is left out, in words.
 *
 * @param unknownLanguage the language it is in where Bimlo does not know it (`unknownLanguage`)
 */
export function accountWords({
  as,
  words: { read, all },
  leftOut,
  unknownLanguage = null,
}: Pick<ReadingText, 'as' | 'words'> & { leftOut: readonly string[]; unknownLanguage?: string | null }): string {
  const share = read === all ? `All ${counted(all, 'word')}` : `${figure(read)} of ${counted(all, 'word')}`;
  const left = leftOut.length === 0 ? '' : ` Left out: ${leftOut.join(', ')}.`;
  const unknown =
    unknownLanguage === null
      ? ''
      : ` Bimlo does not know ${unknownLanguage}: see for yourself whether what it proposes can stand alone.`;
  return `${share} read, ${READ_WORDS[as]}.${left}${unknown}`;
}
