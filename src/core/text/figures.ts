/** A word in small letters, without what is no letter. */
function wordOf(word: string): string {
  return word.toLowerCase().replace(/[^\p{L}]/gu, '');
}

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
  '% ‰ ° °c °f °k km cm mm µm nm kg mg ml cl hl ms min kw kwh mw mwh gw gwh hz khz mhz ghz kb mb gb tb px dpi ha km² m² m³ km/h mph kmh m/s kv ma db hpa bar kcal kj lx lm ly au percent prozent prozentpunkt prozentpunkte prozentpunkten'.split(
    ' ',
  ),
);
/** Those of one letter, whose other case is something else: 5 g are grams, 5G is none. */
const LETTER_UNITS = new Set('m g t l L s h W V A'.split(' '));
/** Currencies as codes (ISO 4217) and as words. */
const CURRENCY_CODES = new Set(
  'CHF EUR USD GBP JPY SEK NOK DKK PLN CZK HUF AUD CAD NZD INR BRL ZAR MXN CNY'.split(' '),
);
const CURRENCIES = new Set(
  'euro euros dollar dollars dólares pound pounds pfund franken franc francs yen kronen reais pesos'.split(' '),
);
/** Words before a number that name one thing by it, and count nothing: “page 47”. */
const NAMES_ONE = new Set(
  `no nr number page pages chapter section room channel version figure table line route platform act psalm verse apollo
   seite kapitel raum kanal abschnitt linie gleis nummer page chapitre salle ligne página capítulo sala número linha tel phone fax`.split(
    /\s+/,
  ),
);

/** Names of months and days: a number beside one is a date. */
const OF_DATES = new Set(
  ['en', 'de', 'fr', 'es', 'pt'].flatMap((language) =>
    (['long', 'short'] as const).flatMap((style) => {
      const months = new Intl.DateTimeFormat(language, { month: style, timeZone: 'UTC' });
      const days = new Intl.DateTimeFormat(language, { weekday: style, timeZone: 'UTC' });
      return Array.from({ length: 12 }, (_, at) => Date.UTC(2026, at, 1 + at)).flatMap((instant) =>
        [months, days].map((names) => wordOf(names.format(instant))),
      );
    }),
  ),
);
/** Words behind a number that make it a time or a year, and count nothing. */
const OF_TIMES = new Set('am pm uhr oclock noon midnight midday sharp bc ad bce ce heures horas'.split(' '));
/** Words before a number that make it a time, where it could be one: “at 7.30”. */
const BEFORE_TIMES = new Set(
  'at from until till by before after um ab bis gegen à dès vers jusquà le las às das até'.split(' '),
);
const CLOCK = /^(?:[01]?\d|2[0-4])\.[0-5]\d$/;
/** What stands between the two numbers of a ratio: “3 in 10”, “einer von 12”. */
const OF_RATIOS = new Set('in of von aus sur de em cada'.split(' '));
/** Words that are the first number of one. */
const ONES = new Set('one two three einer eine eines jeder jede jedes un une uno una um uma'.split(' '));
/** Words that stand before a number which counts, and may begin a sentence. */
const BEFORE_COUNTS = new Set(
  `a about above after all almost and another around at barely because before below between but by down each even every exactly
   fewer first for from half in into just last less like maybe more most nearly no now of on once only or our out over past per
   perhaps roughly since so some still than that the their then these this those through to today under until up we well when
   while with within you your these his her its they there are is was were has have had
   alle auf auch aus bei bis das dass der den die diese dort durch ein eine etwa fast für gegen gut hier ihre im in insgesamt ist
   kaum knapp mehr mit nach nur ob oder rund sind so über um und unsere unter von vor war waren weil wenn wir zu zum zwischen
   au aux avec ces chaque dans des du en encore environ et les leurs mais nos ou par pendant plus pour presque près quelque sur
   al casi cerca con cuando de del desde durante el en entre esos estos hasta hay la las los más menos otros para por sobre solo
   sólo sus tras unos y ao aos as até com da das do dos e em há mais na nas no nos o os ou pelo quase são seus só uns`.split(
    /\s+/,
  ),
);
/** Words that German has and the other languages that are read have not; there a capital begins every noun. */
const GERMAN = new Set(
  'der das dem den und ein eine einen mit von für auf im ist sind war waren wir sie es nicht kamen über etwa rund nur fast'.split(
    ' ',
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
  const before = words[at - 1] ?? '';
  if (/\d[)\]]?$/.test(before) || OF_DATES.has(wordOf(before)) || isOfRatio(words, at)) return null;
  const tail = bare.slice(whole.length);
  const apart = currencyOf(before);
  let [text, next] = [apart ? `${apart} ${whole}` : whole, at + 1];
  let isMeant = currency !== '' || apart !== undefined;
  let isEnded = false;
  if (END.test(tail)) isEnded = tail !== '';
  else {
    const attached = withoutMarks(tail);
    const sign = attached.replace(new RegExp(`^[${SPACE}]`, 'u'), '');
    // “1990s” is ten years rather than seconds.
    if (attached === 's') return null;
    const isScale = SCALES.has(sign.toLowerCase()) && (sign.length > 1 || isMeant || digits.length > 1);
    if (!isUnit(sign) && !isScale) return null;
    if (sign === 'h' && isClock(words, at, next)) return null;
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
    if (!isScale && !isUnit(behind) && !isCurrency(behind)) break;
    if (behind === 'h' && isClock(words, at, next + 1)) return null;
    text += ` ${behind}`;
    isMeant = true;
    isEnded = behind !== words[next];
  }
  if (!isMeant && CLOCK.test(digits) && BEFORE_TIMES.has(wordOf(before))) return null;
  const inHundred = isEnded ? null : PER_CENT.exec(`${words[next] ?? ''} ${withoutMarks(words[next + 1] ?? '')}`)?.[0];
  if (inHundred) return { text: `${text} ${inHundred}`, counts: null };
  const counted = isEnded ? '' : withoutMarks(words[next] ?? '');
  const counts = !isMeant && /^\p{L}{3,}$/u.test(counted) ? counted : null;
  if (isMeant) return { text, counts };
  if (OF_DATES.has(wordOf(counted)) || OF_TIMES.has(wordOf(counted))) return null;
  return saysSomething(digits, text) && !namesOne(words, at, text, counts) ? { text, counts } : null;
}

const PER_CENT =
  /^(?:(?:per|pour|por) (?:cent|ciento|cento)|percentage points?|puntos porcentuales|pontos percentuais)$/iu;

/** Whether a number is the second of a ratio, which says nothing without the first. */
function isOfRatio(words: readonly string[], at: number): boolean {
  if (!OF_RATIOS.has(wordOf(words[at - 1] ?? ''))) return false;
  const first = words.slice(Math.max(0, at - 3), at - 1);
  return first.some((word) => /^\d+$/.test(withoutMarks(word)) || ONES.has(wordOf(word)));
}

/** Whether hours are those of a clock: “à 20 h”, “14 h 05”. @param next the word behind them */
const isClock = (words: readonly string[], at: number, next: number): boolean =>
  /^[0-5]\d\D*$/.test(words[next] ?? '') || BEFORE_TIMES.has(wordOf(words[at - 1] ?? ''));

/** The currency that a word before a number is: “US$”, “CHF”. */
const currencyOf = (word: string): string | undefined =>
  CURRENCY_CODES.has(word) ? word : /^\(?([A-Z]{0,3}\p{Sc})$/u.exec(word)?.[1];

const isCurrency = (word: string): boolean =>
  CURRENCY_CODES.has(word) || CURRENCIES.has(word.toLowerCase()) || /^\p{Sc}$/u.test(word);

/** Whether a number says something without a unit: two digits or more, and no year. */
function saysSomething(digits: string, text: string): boolean {
  const plain = Number(digits);
  if (/^\d{4}$/.test(text) && plain >= YEARS.from && plain <= YEARS.to) return false;
  return digits.length > 1;
}

/**
 * Whether a plain number may be part of a name, of an address or of a place in something: it counts nothing that is named behind it, or
 * a capital stands beside it. What is grouped in thousands is a count all the same.
 */
function namesOne(words: readonly string[], at: number, text: string, counts: string | null): boolean {
  if (/\d[^\d]\d{3}(?!\d)/.test(text)) return false;
  if (counts === null) return true;
  const before = withoutMarks(words[at - 1] ?? '');
  const isEndBefore = before !== (words[at - 1] ?? '');
  const isGerman = words.some((word) => GERMAN.has(word));
  if (/^\p{Lu}/u.test(counts) && !isGerman) return true;
  return !isEndBefore && !isGerman && /^\p{Lu}/u.test(before) && !BEFORE_COUNTS.has(before.toLowerCase());
}

const isUnit = (word: string): boolean =>
  UNITS.has(word.toLowerCase()) || LETTER_UNITS.has(word) || /^\p{Sc}$/u.test(word);
/** A word without the marks of a sentence behind it. */
const withoutMarks = (word: string): string => {
  let end = word.length;
  while (end > 0 && /[)"'”’»\].,;:!?…]/u.test(word[end - 1]!)) end--;
  return word.slice(0, end);
};
