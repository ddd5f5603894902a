import { detectAll } from 'tinyld/light';
import { guessLanguage, LANGUAGES, type Language } from '../extracts/languages';

/** Letters from the beginning of a text by which its language is told. */
const LOOKED_AT = 3_000;
/** How sure the letters have to be where no small words tell, and where some do. */
const SURE = { withoutWords: 0.45, againstWords: 0.65 } as const;

/**
 * The language of a text where it is none that Bimlo knows the small words of, in English: what leans on another sentence is not
 * found in it. Told by the letters that follow each other (tinyld, without any download).
 *
 * @returns null where Bimlo knows it, and wherever there is doubt
 * @example unknownLanguage('Il porto è silenzioso in inverno e le barche sono in secca, e chi non conosce la corda non conosce il mare.') // 'Italian'
 * @example unknownLanguage('The harbour is quiet in winter, and whoever does not know the rope does not know the sea.') // null
 */
export function unknownLanguage(text: string): string | null {
  const looked = text.slice(0, LOOKED_AT);
  const [best] = detectAll(looked);
  if (!best || LANGUAGES.includes(best.lang as Language)) return null;
  const sure = guessLanguage(looked) === null ? SURE.withoutWords : SURE.againstWords;
  if (best.accuracy < sure) return null;
  return new Intl.DisplayNames('en', { type: 'language' }).of(best.lang) ?? null;
}
