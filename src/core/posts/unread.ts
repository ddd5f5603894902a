import type { Part } from '../captions/compose';
import type { Origin } from '../drafts/draft';
import type { WrittenField } from './written';

/** A sentence that was put into a draft, with where it is from. */
export interface DraftedMark {
  /** The text it was put into; `parts` for that of any part. */
  field: WrittenField | 'parts';
  text: string;
  /** Absent for one that is not the piece's own, of a draft made before this was told. */
  origin?: Origin;
  /** Somebody said that it looks right. */
  isRead?: true;
}

type Texts = Partial<Record<WrittenField, string>> & { parts?: readonly Part[] };

/** Whether a sentence still stands as it was put in. */
const stands = (words: Texts, { field, text }: DraftedMark): boolean =>
  field === 'parts'
    ? (words.parts?.some((part) => part.text.includes(text)) ?? false)
    : (words[field]?.includes(text) ?? false);

/** Whether a sentence is the piece's own, or its title. */
const isOwn = ({ origin }: DraftedMark): boolean => origin === 'piece' || origin === 'title';

/**
 * The sentences of a draft that are not the piece's own and that nobody has touched: those that still stand as they were put in.
 * Taking back an older version of the text makes them unread again, changing them does not.
 */
export function unreadOf(words: Texts, drafted: readonly DraftedMark[]): DraftedMark[] {
  return drafted.filter((mark) => !isOwn(mark) && !mark.isRead && stands(words, mark));
}

/** Where sentences stand in a text, in UTF-16 offsets, from its beginning on; one that stands twice is found at its first. */
export function spansOf(text: string, marks: readonly Pick<DraftedMark, 'text'>[]): { start: number; end: number }[] {
  const spans: { start: number; end: number }[] = [];
  const found = marks.flatMap(({ text: sentence }) => {
    const start = text.indexOf(sentence);
    return start < 0 || sentence === '' ? [] : [{ start, end: start + sentence.length }];
  });
  for (const span of found.sort((one, other) => one.start - other.start || other.end - one.end)) {
    const before = spans.at(-1);
    if (!before || span.start >= before.end) spans.push(span);
    else before.end = Math.max(before.end, span.end);
  }
  return spans;
}

/** The sentences of a draft that still stand, with where each is from: what somebody wrote is none of them. */
export const originsOf = (words: Texts, drafted: readonly DraftedMark[]): DraftedMark[] =>
  drafted.filter((mark) => stands(words, mark));
