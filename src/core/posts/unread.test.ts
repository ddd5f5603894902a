import { describe, expect, it } from 'vitest';
import { originsOf, spansOf, unreadOf, type DraftedMark } from './unread';

const MARKS: DraftedMark[] = [
  { field: 'caption', text: 'Rings vanish.', origin: 'piece' },
  { field: 'caption', text: 'Read on.', origin: 'phrase' },
  { field: 'parts', text: 'Come and see.', origin: 'shelf' },
  { field: 'caption', text: 'An older one.' },
];
const words = (caption: string, part = 'Come and see.') => ({
  caption,
  parts: [{ id: 'a', text: part, pictureId: null }],
});
const textsOf = (marks: readonly DraftedMark[]) => marks.map(({ text }) => text);

describe('the sentences of a draft', () => {
  it('are unread while they are not the piece’s own and stand as they were put in', () => {
    expect(textsOf(unreadOf(words('Rings vanish. Read on. An older one.'), MARKS))).toEqual([
      'Read on.',
      'Come and see.',
      'An older one.',
    ]);
    expect(textsOf(unreadOf(words('Rings vanish. Read this.', 'Come.'), MARKS))).toEqual([]);
  });

  it('are read once somebody said that they look right', () => {
    expect(
      unreadOf(
        words('Read on.'),
        MARKS.map((mark) => ({ ...mark, isRead: true as const })),
      ),
    ).toEqual([]);
  });

  it('keep where they are from as long as they stand, read or not', () => {
    expect(originsOf(words('Rings vanish. By hand.', ''), MARKS).map(({ text, origin }) => [text, origin])).toEqual([
      ['Rings vanish.', 'piece'],
    ]);
  });

  it('stand somewhere in a text, apart and in order, at their first place', () => {
    const at = (...texts: string[]) =>
      spansOf(
        'Read on. Come. Read on.',
        texts.map((text) => ({ text })),
      );
    expect(at('Come.', 'Read on.')).toEqual([
      { start: 0, end: 8 },
      { start: 9, end: 14 },
    ]);
    expect(at('on. Come', 'Read on.')).toEqual([{ start: 0, end: 13 }]);
    expect(at('Gone.', '')).toEqual([]);
  });
});
