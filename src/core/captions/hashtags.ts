import type { Span } from './links';

// UAX #31, hashtag identifiers (UAX31-D2): a start, then continuing characters, with medial dots inside only.
const HASHTAG = /(?<![\p{L}\p{M}\p{N}_&/#＃])[#＃]([\p{L}\p{M}\p{N}_]+(?:[·・][\p{L}\p{M}\p{N}_]+)*)/gu;

/**
 * Where the hashtags of a text stand, sign included. A tag of digits only (`#1`) is none.
 *
 * @internal
 */
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
  return hashtagsIn(wordsOf(typed).filter(isWholeTag).join(' '));
}

/**
 * The words of a field of hashtags that no network can take as they are typed: signs end a hashtag, and digits alone are none.
 *
 * @example unreadHashtags('NightSky C++ night-sky 2026 #a#b') // ['C++', 'night-sky', '2026', '#a#b']
 */
export const unreadHashtags = (typed: string): string[] =>
  wordsOf(typed)
    .filter((word) => !isWholeTag(word))
    .map((word) => word.replace(/^#(?=[^#＃]*$)/, ''));

/** The words of a field of hashtags, each with its sign. */
const wordsOf = (typed: string): string[] =>
  typed
    .split(/[\s,;]+/u)
    .filter(Boolean)
    .map((word) => (/^[#＃]/.test(word) ? word : `#${word}`));

function isWholeTag(word: string): boolean {
  const [span, more] = hashtagSpans(word);
  return span !== undefined && more === undefined && span.start === 0 && span.end === word.length;
}

/** Two hashtags with the same key are the same to a reader. */
export const hashtagKey = (tag: string): string => tag.normalize('NFC').toLowerCase();
