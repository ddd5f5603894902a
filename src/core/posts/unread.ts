import type { Part } from '../captions/compose';
import type { WrittenField } from './written';

/** A sentence that was put into a draft and is not the piece's own. */
export interface DraftedMark {
  /** The text it was put into; `parts` for that of any part. */
  field: WrittenField | 'parts';
  text: string;
}

type Texts = Partial<Record<WrittenField, string>> & { parts?: readonly Part[] };

/**
 * The sentences of a draft that nobody has touched: those that still stand as they were put in. Taking back an older version of the
 * text makes them unread again, changing them does not.
 */
export function unreadOf(words: Texts, drafted: readonly DraftedMark[]): DraftedMark[] {
  return drafted.filter(({ field, text }) =>
    field === 'parts' ? words.parts?.some((part) => part.text.includes(text)) : words[field]?.includes(text),
  );
}
