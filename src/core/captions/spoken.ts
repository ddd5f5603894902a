import { segmentsOf } from '../text/segments';

/** Words a minute that a script may be spoken at, and what is usual. */
export const WORDS_PER_MINUTE = { least: 60, most: 300, usual: 150 } as const;

const words = new Intl.Segmenter('en', { granularity: 'word' });

/** The words of a script that are spoken: what stands in square brackets is a direction. */
export function spokenWords(script: string): number {
  let count = 0;
  for (const { isWordLike } of segmentsOf(script.replace(/\[[^[\]]*\]/g, ' '), words)) if (isWordLike) count++;
  return count;
}

/**
 * How long a script is spoken, in whole seconds, rounded up.
 *
 * @param wordsPerMinute more than 0
 * @example spokenSeconds('One two three. [pause] Four.', 120) // 2
 */
export const spokenSeconds = (script: string, wordsPerMinute: number): number =>
  Math.ceil((spokenWords(script) * 60) / wordsPerMinute);

/** A length in words: “2 min 5 s”, “40 s”. */
export function lengthWords(seconds: number): string {
  const minutes = Math.floor(seconds / 60);
  const rest = Math.round(seconds % 60);
  return [minutes > 0 ? `${minutes} min` : '', rest > 0 || minutes === 0 ? `${rest} s` : ''].filter(Boolean).join(' ');
}
