import { detectAll } from 'tinyld/light';
import { guessLanguage, shareOfSmallWords, LANGUAGES, type Language } from '../extracts/languages';

/** Letters from which a paragraph shows what language it is in. */
const LEAST = 60;
/** Share of small words of the piece's language from which a paragraph is in it. */
const AT_HOME = 0.2;
/** Share of small words of the piece's language below which the letters may show that it is in another one. */
const NOT_AT_HOME = 0.05;
/** Share of small words from which it is in another that Bimlo knows. */
const ELSEWHERE = 0.3;
/** Letters of another script from which a stretch shows that it is in another language. */
const LEAST_OF_SCRIPT = 8;
/** How sure the letters have to be, where small words do not tell. */
const SURE = 0.5;

/** The name of a file, an address and the like, which are in no language. */
const NAME_OF_FILE = /(?<!\S)(?=\S*(?:[/\\_@]|\p{L}\.\p{L}))\S+/gu;

const LETTERS = /\p{L}/gu;
const OF_OTHER_SCRIPT = /(?!\p{Script=Latin})\p{L}/u;
const OF_OTHER_SCRIPTS = new RegExp(OF_OTHER_SCRIPT, 'gu');

/** Whether most letters of a stretch are of a script that none of the languages which Bimlo knows is written in. */
function isOtherScript(text: string): boolean {
  if (!OF_OTHER_SCRIPT.test(text)) return false;
  const letters = text.match(LETTERS)?.length ?? 0;
  return letters >= LEAST_OF_SCRIPT && (text.match(OF_OTHER_SCRIPTS)?.length ?? 0) > letters / 2;
}

/**
 * The language of a paragraph, where it is another than that of its piece: by its small words, else by the letters that follow each
 * other (tinyld, without any download), and always where it is in another script. Null for one in the piece's own, and wherever there is doubt.
 *
 * @param own the piece's; null where it is in none that Bimlo knows
 */
export function foreignLanguage(text: string, own: Language | null): string | null {
  if (own !== null && isOtherScript(text)) return detectAll(text)[0]?.lang ?? 'und';
  if (text.length < LEAST || own === null) return null;
  const said = text.replace(NAME_OF_FILE, ' ');
  const share = shareOfSmallWords(said, own);
  if (share >= AT_HOME) return null;
  const known = guessLanguage(said);
  if (known !== null && known !== own && shareOfSmallWords(said, known) >= ELSEWHERE) return known;
  const [best] = detectAll(said);
  if (share < NOT_AT_HOME && known !== null && known !== own && best?.lang === known) return known;
  if (!best || best.lang === own || best.accuracy < SURE) return null;
  return LANGUAGES.includes(best.lang as Language) ? null : best.lang;
}
