import { accept, refuse, type Result } from '../refusal';
import { cleanText } from '../text/clean';

/** One text that a writing service is asked for. */
export interface WantedText {
  /** What it is: “Caption”, “Part 2”. */
  text: string;
  /** Characters it may have, at most. */
  most: number;
  /** How Bimlo would write it: a start, and what it has to be about. */
  start: string;
}

/** What a writing service is asked, as JSON: `docs/writing-service.md`. */
export interface WritingRequest {
  /** ISO 639-1, as the piece is written; null where that is not known. */
  language: string | null;
  task: string;
  rules: readonly string[];
  /** The part of the piece that the texts are made from. */
  source: string;
  wanted: readonly WantedText[];
}

/** Characters of an answer, at most. */
export const ANSWER_LIMIT = 200_000;

/** The texts of an answer: as many as were asked for, in their order, without what no text of a person holds (`cleanText`). */
export function readAnswer(body: string, wanted: number): Result<string[]> {
  let answer: unknown;
  try {
    answer = JSON.parse(body);
  } catch {
    return refuse('badAnswer', 'its answer was no JSON');
  }
  const texts = typeof answer === 'object' && answer !== null && 'texts' in answer ? answer.texts : null;
  if (!Array.isArray(texts) || !texts.every((text): text is string => typeof text === 'string'))
    return refuse('badAnswer', 'its answer had no list of texts');
  return texts.length === wanted
    ? accept(texts.map(cleanText))
    : refuse('badAnswer', `it gave ${texts.length} texts instead of ${wanted}`);
}

/** Checks the address of a writing service: one page, by HTTP or HTTPS, without a name and password in it. */
export function readServiceAddress(typed: string): Result<string> {
  const address = typed.trim();
  const url = URL.canParse(address) ? new URL(address) : null;
  if (!url || !['http:', 'https:'].includes(url.protocol) || address.length > 2_000)
    return refuse('badAddress', 'An address begins with http:// or https:// and names a host.', 'address');
  if (url.username !== '' || url.password !== '')
    return refuse(
      'badAddress',
      'Leave the name and password out of the address. The key has its own field.',
      'address',
    );
  return accept(url.href);
}
