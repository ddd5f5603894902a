import { analyse } from 'chardet';

/** Bytes that are looked at to tell how a text is written. */
const LOOKED_AT = 64_000;
/** How much surer the best guess has to be than the next, and how sure at least, of 100. */
const SURE = { times: 1.4, least: 30 } as const;
/** Ways to read a text that are offered at once. */
const OFFERED = 6;
/** Letters of a text that show whether it is read rightly. */
const PREVIEW = 160;

/** A text with the name of its encoding (WHATWG Encoding Standard). */
interface DecodedText {
  text: string;
  encoding: string;
}

/** A way to read bytes as text. */
export interface PossibleEncoding {
  encoding: string;
  /** How what matters of the text reads so. */
  preview: string;
}

/**
 * Reads bytes as text: UTF-8 with or without its mark, UTF-16 by its mark or by its zero bytes, as a page says of itself, or by
 * how often its bytes follow each other (`chardet`). Null where that does not tell.
 */
export function decodeSurely(bytes: Uint8Array): DecodedText | null {
  const marked = markedEncoding(bytes);
  if (marked !== null) return { text: decodeAs(bytes, marked)!, encoding: marked };
  try {
    return { text: new TextDecoder('utf-8', { fatal: true }).decode(bytes), encoding: 'utf-8' };
  } catch (error) {
    if (!(error instanceof TypeError)) throw error;
  }
  const said = saidEncoding(bytes);
  const own = said === null ? null : decodeAs(bytes, said);
  if (own !== null) return { text: own, encoding: said! };
  const [best, ...others] = guessesOf(bytes);
  if (!best) return null;
  const text = decodeAs(bytes, best.encoding)!;
  const near = others.filter(({ confidence }) => best.confidence < Math.max(SURE.least, confidence * SURE.times));
  const isSure = near.every(({ encoding }) => decodeAs(bytes, encoding) === text);
  return isSure ? { text, encoding: best.encoding } : null;
}

/** Reads bytes as text, in doubt as Windows-1252, which every byte is a letter of. */
export const decodeText = (bytes: Uint8Array): string => decodeSurely(bytes)?.text ?? decodeWindows1252(bytes);

/** The ways to read bytes as text that are likely, the likeliest first, none twice that reads the same. */
export function possibleEncodings(bytes: Uint8Array): PossibleEncoding[] {
  const seen = new Set<string>();
  return [...guessesOf(bytes).map(({ encoding }) => encoding), 'windows-1252']
    .flatMap((encoding): PossibleEncoding[] => {
      const preview = previewOf(decodeAs(bytes, encoding) ?? '');
      if (preview === '' || seen.has(preview)) return [];
      seen.add(preview);
      return [{ encoding, preview }];
    })
    .slice(0, OFFERED);
}

/** Bytes read as text in an encoding of that name; null for one that there is not. */
export function decodeAs(bytes: Uint8Array, encoding: string): string | null {
  if (/^(?:windows-1252|iso-8859-1|latin1|us-ascii|ascii)$/i.test(encoding)) return decodeWindows1252(bytes);
  try {
    return new TextDecoder(encoding).decode(bytes);
  } catch (error) {
    if (error instanceof RangeError) return null;
    throw error;
  }
}

/** The encoding that marks at the beginning of a text, or zeros among its bytes, show; null for none. */
function markedEncoding(bytes: Uint8Array): string | null {
  const [a, b] = bytes;
  if (a === 0xff && b === 0xfe) return 'utf-16le';
  if (a === 0xfe && b === 0xff) return 'utf-16be';
  const zeros = (from: number) => {
    let count = 0;
    const end = Math.min(bytes.length, 400);
    for (let at = from; at < end; at += 2) if (bytes[at] === 0) count++;
    return end > 4 && count > end / 5;
  };
  if (zeros(1)) return 'utf-16le';
  return zeros(0) ? 'utf-16be' : null;
}

/** The encoding that a page says it is written in. */
function saidEncoding(bytes: Uint8Array): string | null {
  const head = decodeWindows1252(bytes.subarray(0, 2_000));
  if (!head.includes('<')) return null;
  return /(?:charset|encoding)\s{0,9}=\s{0,9}["']?([\w.:-]{2,40})/i.exec(head)?.[1]?.toLowerCase() ?? null;
}

function guessesOf(bytes: Uint8Array): { encoding: string; confidence: number }[] {
  return analyse(bytes.subarray(0, LOOKED_AT))
    .map(({ name, confidence }) => ({ encoding: name.toLowerCase(), confidence }))
    .filter(
      ({ encoding, confidence }) =>
        confidence > 5 && encoding !== 'ascii' && decodeAs(bytes.subarray(0, 4), encoding) !== null,
    );
}

/** The first stretch of a text that has letters beyond ASCII in it, which is where encodings differ. */
function previewOf(text: string): string {
  const at = text.search(/[^\u0000-\u007F]/);
  const from = Math.max(0, at - PREVIEW / 4);
  return text
    .slice(from, from + PREVIEW)
    .replace(/\s+/g, ' ')
    .trim();
}

/** Windows-1252 from 0x80 to 0x9F (WHATWG Encoding Standard); below and above it is Latin 1. Node's own decoder takes these for Latin 1 too. */
const WINDOWS_1252 = '€\u0081‚ƒ„…†‡ˆ‰Š‹Œ\u008dŽ\u008f\u0090‘’“”•–—˜™š›œ\u009džŸ';

function decodeWindows1252(bytes: Uint8Array): string {
  let text = '';
  for (const byte of bytes)
    text += byte >= 0x80 && byte <= 0x9f ? WINDOWS_1252[byte - 0x80]! : String.fromCharCode(byte);
  return text;
}
