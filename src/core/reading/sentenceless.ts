/** Stretches between spaces that are looked at. */
const LOOKED_AT = 4_000;
/** Stretches from which a text shows what it is. */
const ENOUGH = 40;
/** Share of words among them below which a text has no sentences. */
const WORDS = 0.5;
/** What figures, addresses and lines of programs have in them, and words do not. */
const NO_WORD = /[\p{N}=<>{}|\\/@$%^+]|::/u;
const WITHOUT_SPACES = /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}]/u;

/** Why a file is not read, in words: it is none of text, or one without sentences. Null for one that may be. */
export function whyUnread(text: string): string | null {
  if (/^(?:%PDF-|PK\u0003\u0004|\u0089PNG|GIF8|ID3|RIFF)/.test(text))
    return 'This is not a file of text. Save what it says as plain text, Markdown, HTML or subtitles, then bring that in.';
  if (/^\s*[{[]/.test(text) && isJson(text))
    return 'This is a file of data: there are no sentences in it to make posts of. Bring in the text itself.';
  if (/^\uFEFF?\s*</.test(text) || WITHOUT_SPACES.test(text.slice(0, LOOKED_AT))) return null;
  const stretches = text
    .split(/\s+/, LOOKED_AT)
    .filter((stretch) => /[\p{L}\p{N}]/u.test(stretch) && stretch !== '-->');
  const words = stretches.filter((stretch) => !NO_WORD.test(stretch)).length;
  if (stretches.length < ENOUGH || words >= stretches.length * WORDS) return null;
  return 'There are hardly any sentences in this file: it looks like figures or lines of a log. Bring in a text that somebody wrote or said.';
}

function isJson(text: string): boolean {
  try {
    return typeof JSON.parse(text) === 'object';
  } catch (error) {
    if (!(error instanceof SyntaxError)) throw error;
    return false;
  }
}
