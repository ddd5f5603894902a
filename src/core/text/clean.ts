/** Control characters that no text of a person means: all of C0 but tab and line breaks, and delete. */
const UNWANTED = /[\u0000-\u0008\u000B\u000C\u000E-\u001F\u007F]/g;
/** A surrogate without its other half. */
const LONE_SURROGATE = /\p{Surrogate}/gu;

/**
 * Text as Bimlo keeps it: without control characters other than tab and line breaks, and with a lone surrogate, which no
 * encoding can hold, as U+FFFD. All else stays to the letter.
 *
 * @example
 * cleanText('a\u0000b') // 'ab'
 * cleanText('\ud83d') // '\ufffd', but the pair of an emoji stays
 */
export const cleanText = (text: string): string => text.replace(UNWANTED, '').replace(LONE_SURROGATE, '\ufffd');

/** A value read from JSON with every text in it cleaned, names of fields included.. */
export function cleanDeep(value: unknown): unknown {
  if (typeof value === 'string') return cleanText(value);
  if (Array.isArray(value)) return value.map(cleanDeep);
  if (typeof value !== 'object' || value === null) return value;
  const cleaned: Record<string, unknown> = {};
  for (const [name, content] of Object.entries(value))
    Object.defineProperty(cleaned, cleanText(name), {
      value: cleanDeep(content),
      enumerable: true,
      writable: true,
      configurable: true,
    });
  return cleaned;
}
