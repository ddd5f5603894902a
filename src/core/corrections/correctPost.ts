import type { Part } from '../captions/compose';
import { wordsFor, type Card } from '../cards/card';
import type { DraftedMark } from '../posts/unread';
import { WRITTEN_FIELDS, type WrittenField } from '../posts/texts';
import type { WrittenWords } from '../posts/written';
import type { Correction } from './corrections';
import { correctText } from './correctText';

/** A picture of a post, as far as it says something. */
export interface SayingPicture {
  id: string;
  alt: string;
  /** Words that are set as the picture; null for any other. */
  card: Pick<Card, 'text' | 'follows'> | null;
}

/** A post with all that it says. */
export type PostToCorrect = WrittenWords & {
  drafted: readonly DraftedMark[];
  pictures: readonly SayingPicture[];
};

/** One text of a post before and after it is corrected. */
export interface CorrectedText {
  /** The text; a part of the post; or the words of a picture, or those that describe it. */
  of: WrittenField | 'parts' | 'card' | 'alt';
  /** Which part or picture, counted from 1. */
  number?: number;
  before: string;
  after: string;
}

/** What correcting a post as its piece was corrected comes to. */
export interface CorrectedPost {
  texts: CorrectedText[];
  /** Its words as they are then. */
  words: Partial<Record<WrittenField, string>> & { parts?: readonly Part[]; drafted: readonly DraftedMark[] };
  /** The pictures whose alt text is another, and those whose words have to be set again, with what they say then. */
  alts: ReadonlyMap<string, string>;
  cards: ReadonlyMap<string, string>;
  /** Sentences in it that the piece no longer says, and says nothing in their place. */
  gone: string[];
}

/** Corrects a post as its piece was corrected; null where the post says nothing of what the piece says otherwise by now. */
export function correctPost(post: PostToCorrect, corrections: readonly Correction[]): CorrectedPost | null {
  const texts: CorrectedText[] = [];
  const gone = new Set<number>();
  const corrected = (before: string, of: CorrectedText['of'], number?: number): string => {
    if (before === '') return before;
    const { text: after, gone: notThere } = correctText(before, corrections);
    for (const place of notThere) gone.add(place);
    if (after !== before) texts.push({ of, before, after, ...(number !== undefined && { number }) });
    return after;
  };
  const words: CorrectedPost['words'] = {
    drafted: post.drafted.map((mark) => ({ ...mark, text: correctText(mark.text, corrections).text })),
  };
  for (const field of WRITTEN_FIELDS) {
    const after = corrected(post[field], field);
    if (after !== post[field]) words[field] = after;
  }
  const parts = post.parts.map((part, at) => ({ ...part, text: corrected(part.text, 'parts', at + 1) }));
  if (parts.some(({ text }, at) => text !== post.parts[at]!.text)) words.parts = parts;
  const alts = new Map<string, string>();
  const cards = new Map<string, string>();
  post.pictures.forEach(({ id, alt, card }, at) => {
    if (card) {
      const follows = wordsFor(card, { headline: post.headline, caption: post.caption, ...words });
      // What follows the words of its post is told with them.
      const said =
        follows === null
          ? corrected(card.text, 'card', at + 1)
          : (words.headline ?? words.caption)
            ? follows
            : card.text;
      if (said !== card.text) cards.set(id, said);
    }
    const described = card && alt.includes(card.text) ? alt : corrected(alt, 'alt', at + 1);
    if (described !== alt) alts.set(id, described);
  });
  if (texts.length === 0 && gone.size === 0) return null;
  return {
    texts,
    words,
    alts,
    cards,
    gone: [...gone].sort((a, b) => a - b).map((place) => corrections[place]!.before),
  };
}
