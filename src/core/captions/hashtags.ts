import type { Span } from './links';

// UAX #31, hashtag identifiers (UAX31-D2): a start, then continuing characters, with medial dots inside only.
const HASHTAG = /(?<![\p{L}\p{M}\p{N}_&/#＃])[#＃]([\p{L}\p{M}\p{N}_]+(?:[·・][\p{L}\p{M}\p{N}_]+)*)/gu;

/** Where the hashtags of a text stand, sign included. A tag of digits only (`#1`) is none. */
export function hashtagSpans(text: string): Span[] {
  if (!/[#＃]/.test(text)) return [];
  return [...text.matchAll(HASHTAG)]
    .filter((match) => /[\p{L}_]/u.test(match[1]!))
    .map((match) => ({ start: match.index, end: match.index + match[0].length }));
}

/** The hashtags of a text in order, each with a plain `#`, repeated ones once (compared without case, after NFC). */
export function hashtagsIn(text: string): string[] {
  const seen = new Map<string, string>();
  for (const span of hashtagSpans(text)) {
    const tag = `#${text.slice(span.start + 1, span.end)}`;
    const key = hashtagKey(tag);
    if (!seen.has(key)) seen.set(key, tag);
  }
  return [...seen.values()];
}

/**
 * Reads a field of hashtags as people type it: with or without the sign, set apart by white space or commas.
 *
 * @example readHashtags('NightSky, #rings  rings') // ['#NightSky', '#rings']
 */
export function readHashtags(typed: string): string[] {
  const words = typed.split(/[\s,;]+/u).filter(Boolean);
  return hashtagsIn(words.map((word) => (/^[#＃]/.test(word) ? word : `#${word}`)).join(' '));
}

/** Two hashtags with the same key are the same to a reader. */
export const hashtagKey = (tag: string): string => tag.normalize('NFC').toLowerCase();
