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

/** The sentences of a draft that still stand, with where each is from: what somebody wrote is none of them. */
export const originsOf = (words: Texts, drafted: readonly DraftedMark[]): DraftedMark[] =>
  drafted.filter((mark) => stands(words, mark));
