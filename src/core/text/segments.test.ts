import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { segmentsOf } from './segments';

const GRANULARITIES = ['grapheme', 'word', 'sentence'] as const;
const segmenterOf = (granularity: (typeof GRANULARITIES)[number]) => new Intl.Segmenter('und', { granularity });
const CHARACTERS = [
  ...['a', 'B', ' ', '. ', "'", ',', '1', '\n', '\r\n', 'e\u0301', '\u200d', '\ufe0f', 'ا', 'א"', 'क्ष', '한', '? '],
  ...['👩‍🚀', '👩‍', '🇵', '🇵🇹', '🌠', '𠮷', '\ud83d', '“', '…'],
];

/** An ideograph joined to a picture: the segmenter then says of all ideographs before it that they are no words. */
const JOINED = /\p{Ideographic}[\u200d\ufe0f\u0301]+\p{Extended_Pictographic}/u;

describe.each(GRANULARITIES)('segments by %s', (granularity) => {
  const segmenter = segmenterOf(granularity);

  it('are those of the segmenter, whatever the length of the text', () => {
    const runs = fc.array(fc.tuple(fc.constantFrom(...CHARACTERS), fc.integer({ min: 1, max: 700 })), {
      maxLength: 12,
    });
    const mixed = fc.array(fc.constantFrom(...CHARACTERS), { minLength: 400, maxLength: 2_500 });
    const texts = fc
      .oneof(
        runs.map((parts) => parts.map(([character, times]) => character.repeat(times)).join('')),
        mixed.map((parts) => parts.join('')),
      )
      .filter((text) => !JOINED.test(text));
    fc.assert(
      fc.property(texts, (text) => {
        const whole = [...segmenter.segment(text)].map(({ segment, index, isWordLike }) => ({
          segment,
          index,
          isWordLike,
        }));
        expect([...segmentsOf(text, segmenter)]).toEqual(whole);
      }),
      { numRuns: 100 },
    );
  });

  it.each(['. ', 'word is. ', '字。', '🌠', '🇵', 'ا '])('of 100,000 characters of “%s” are there at once', (token) => {
    const text = token.repeat(100_000 / token.length);
    const start = performance.now();
    expect([...segmentsOf(text, segmenter)].map(({ segment }) => segment).join('')).toHaveLength(text.length);
    // At once, the segmenter takes half a minute where it finds many.
    expect(performance.now() - start).toBeLessThan(3_000);
  });
});
