/** A figure in a text: all of it, with its sign, currency, scale and unit. */
interface Figure {
  /** As it stands in the text: “£1.5 million”, “−25 °C”. */
  text: string;
  /** The word behind it that says what it counts: “windows”; null where there is none. */
  counts: string | null;
}

/** Words that make a number larger, in the languages that are read: “1.5 million”. */
const SCALES = new Set(
  `thousand million billion trillion hundred k m bn mn tn mio mrd tausend million millionen milliarde milliarden billionen
   mille million millions milliard milliards mil millón millones milhão milhões bilhões lakh crore dozen`.split(/\s+/),
);
/** Signs of units; `m` and `k` alone are scales where a currency stands before. */
const UNITS = new Set(
  '% ‰ ° °c °f °k km m cm mm µm nm kg g mg t l ml cl hl s ms min h w kw kwh mw mwh gw gwh hz khz mhz ghz kb mb gb tb px dpi ha km² m² m³ km/h mph kmh m/s v kv a ma db hpa bar kcal kj lx lm ly au'.split(
    ' ',
  ),
);
/** Words before a number that name one thing by it, and count nothing: “page 47”. */
const NAMES_ONE = new Set(
  `no nr number page pages chapter section room channel version figure table line route platform act psalm verse apollo
   seite kapitel raum kanal abschnitt linie gleis nummer page chapitre salle ligne página capítulo sala número linha tel phone fax`.split(
    /\s+/,
  ),
);

const SPACE = '\u00a0\u202f\u2009';
const BEGIN = /^[("'“‘«„[¿¡]*/u;
/** A number without what stands around it: grouped by threes, or plain, with or without a decimal part. */
const NUMBER = new RegExp(
  `^([+−–±~≈<>≤≥-]?)(\\p{Sc}?)(\\d{1,3}(?:[.,'’${SPACE}]\\d{3}){1,4}(?:[.,]\\d{1,3})?|\\d{1,15}(?:[.,]\\d{1,6})?)`,
  'u',
);
const END = /^[)"'”’»\].,;:!?…]*$/u;
/** Characters of a word that may hold a figure; longer ones are passed over. */
const LONGEST = 40;
/** Numbers of four digits that may be a year. */
const YEARS = { from: 1_000, to: 2_199 } as const;

/**
 * The first figure of a text that may stand by itself: whole, or none. No year, time, date, ordinal, telephone number or number of a page is
 * one, nor a single digit that counts nothing.
 *
 * @example figureIn('It cost £1.5 million.') // { text: '£1.5 million', counts: null }
 * @example figureIn('Founded in 1984, call 020 7946 0018.') // null
 */
export function figureIn(text: string): Figure | null {
  const words = text.split(/[ \t\n]+/);
  for (let at = 0; at < words.length; at++) {
    const figure = figureAt(words, at);
    if (figure) return figure;
  }
  return null;
}

function figureAt(words: readonly string[], at: number): Figure | null {
  const word = words[at]!;
  if (word.length > LONGEST) return null;
  const bare = word.slice(BEGIN.exec(word)![0].length);
  const [whole = '', , currency = '', digits = ''] = NUMBER.exec(bare) ?? [];
  if (digits === '') return null;
  if (/^0\d/.test(digits) || NAMES_ONE.has(wordOf(words[at - 1] ?? ''))) return null;
  if (/\d[)\]]?$/.test(words[at - 1] ?? '')) return null;
  const tail = bare.slice(whole.length);
  let [text, next] = [whole, at + 1];
  let isMeant = currency !== '';
  let isEnded = false;
  if (END.test(tail)) isEnded = tail !== '';
  else {
    const attached = withoutMarks(tail);
    const sign = attached.replace(new RegExp(`^[${SPACE}]`, 'u'), '');
    if (!isUnit(sign) && !(SCALES.has(sign.toLowerCase()) && sign !== '')) return null;
    text += attached;
    isMeant = true;
    isEnded = attached !== tail;
  }
  // Thousands set apart by spaces: “20 000”. Other digits behind it make it part of something longer.
  for (let groups = 0; !isEnded && /^\d/.test(words[next] ?? ''); groups++) {
    const group = withoutMarks(words[next]!);
    if (groups === 3 || !/^\d{3}$/.test(group) || !/^\d{1,3}$/.test(digits)) return null;
    text += ` ${group}`;
    isEnded = group !== words[next];
    next++;
  }
  if (/^[+(/–-]\d/.test(words[next] ?? '') && !isEnded) return null;
  for (; !isEnded && next < words.length; next++) {
    const behind = withoutMarks(words[next]!);
    const isScale = SCALES.has(behind.toLowerCase()) && behind.length > 1;
    if (!isScale && !isUnit(behind) && !/^\p{Sc}$/u.test(behind)) break;
    text += ` ${behind}`;
    isMeant = true;
    isEnded = behind !== words[next];
  }
  const counted = isEnded ? '' : withoutMarks(words[next] ?? '');
  const counts = !isMeant && /^\p{L}{3,}$/u.test(counted) ? counted : null;
  return isMeant || isLarge(digits, text) ? { text, counts } : null;
}

/** Whether a number says something without a unit: two digits or more, and no year. */
function isLarge(digits: string, text: string): boolean {
  const plain = Number(digits);
  if (/^\d{4}$/.test(text) && plain >= YEARS.from && plain <= YEARS.to) return false;
  return digits.length > 1;
}

const isUnit = (word: string): boolean => UNITS.has(word.toLowerCase()) || /^\p{Sc}$/u.test(word);
const wordOf = (word: string): string => word.toLowerCase().replace(/[^\p{L}]/gu, '');
/** A word without the marks of a sentence behind it. */
const withoutMarks = (word: string): string => {
  let end = word.length;
  while (end > 0 && /[)"'”’»\].,;:!?…]/u.test(word[end - 1]!)) end--;
  return word.slice(0, end);
};
