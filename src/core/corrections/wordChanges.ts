import { diffArrays } from 'diff';

/** Words of a sentence that are others in the corrected one. */
export interface WordChange {
  from: string;
  to: string;
  /** The words next to them in the sentence before; null at its ends. */
  left: string | null;
  right: string | null;
}

/** A figure with its signs, a letter of a script without spaces, a word, white space, or any other sign. */
const TOKEN =
  /\p{N}+(?:[.,:/-]\p{N}+){0,6}|[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}]|\p{L}[\p{L}\p{M}\p{N}'’_-]{0,80}|\s+|[^]/gu;

/** Words of two sentences beyond which they are compared no further. */
const MOST_EDITS = 200;

/** A text in its words, figures, white space and signs: joined they are the text. */
export const tokensOf = (text: string): string[] => text.match(TOKEN) ?? [];

/** Which words of a sentence are others in the corrected one; words apart by a blank or a sign only change together. */
export function changesOf(before: string, after: string): WordChange[] {
  const tokens = tokensOf(before);
  const parts = diffArrays(tokens, tokensOf(after), { maxEditLength: MOST_EDITS });
  if (!parts) return [];
  const spans: { start: number; end: number; to: string }[] = [];
  let at = 0;
  let isOpen = false;
  for (const { added, removed, value } of parts) {
    if (!added && !removed) {
      at += value.length;
      isOpen = false;
      continue;
    }
    const last = spans.at(-1);
    const span = isOpen && last ? last : { start: at, end: at, to: '' };
    if (span !== last) spans.push(span);
    if (removed) span.end = at += value.length;
    else span.to += value.join('');
    isOpen = true;
  }
  const textOf = (start: number, end: number) => tokens.slice(start, end).join('');
  return together(spans, textOf).map(({ start, end, to }) => ({
    ...{ from: textOf(start, end), to },
    left: tokens.slice(0, start).findLast(isWord) ?? null,
    right: tokens.slice(end).find(isWord) ?? null,
  }));
}

const isWord = (token: string): boolean => /[\p{L}\p{N}]/u.test(token);

type Span = { start: number; end: number; to: string };

function together(spans: readonly Span[], textOf: (start: number, end: number) => string): Span[] {
  const joined: Span[] = [];
  for (const span of spans) {
    const last = joined.at(-1);
    const between = last ? textOf(last.end, span.start) : '';
    if (last && !isWord(between)) {
      last.to += between + span.to;
      last.end = span.end;
    } else joined.push({ ...span });
  }
  return joined;
}
