import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { SHIPPED_RULE_SHEETS } from '../rulesheets/shipped';
import { fieldRule } from '../rulesheets/types';
import { countText, measureText, surelyFit } from './count';

const GRAPHEMES = { unit: 'grapheme', wideWeight: 1, linkLength: null } as const;
const WEIGHTED = { unit: 'grapheme', wideWeight: 2, linkLength: 20 } as const;
const CODE_POINTS = { unit: 'codePoint', wideWeight: 1, linkLength: null } as const;
const UTF16 = { unit: 'utf16', wideWeight: 1, linkLength: null } as const;

/** Counted by hand: text, graphemes, weighted (wide 2, link 20), code points, UTF-16 units. */
const TABLE: [name: string, text: string, graphemes: number, weighted: number, codePoints: number, utf16: number][] = [
  ['nothing', '', 0, 0, 0, 0],
  ['a letter', 'a', 1, 1, 1, 1],
  ['plain words', 'Roof open', 9, 9, 9, 9],
  ['spaces at the ends', ' a ', 3, 3, 3, 3],
  ['a line break', 'a\nb', 3, 3, 3, 3],
  ['a break of two characters', 'a\r\nb', 3, 3, 4, 4],
  ['a tab', 'a\tb', 3, 3, 3, 3],
  ['composed é', 'é', 1, 1, 1, 1],
  ['e and combining acute', 'e\u0301', 1, 1, 2, 2],
  ['a and two marks', 'a\u0323\u0302', 1, 1, 3, 3],
  ['marks in a word', 'cafe\u0301s', 5, 5, 6, 6],
  ['a mark after a space', 'a \u0301b', 3, 3, 4, 4],
  ['Vietnamese, composed', 'Việt', 4, 4, 4, 4],
  ['Greek', 'νύχτα', 5, 5, 5, 5],
  ['Cyrillic', 'ночь', 4, 4, 4, 4],
  ['Arabic', 'ليل', 3, 3, 3, 3],
  ['Arabic with vowel marks', 'لَيْل', 3, 3, 5, 5],
  ['Hebrew', 'לילה', 4, 4, 4, 4],
  ['Devanagari with a vowel sign', 'रात', 2, 2, 3, 3],
  ['Devanagari with virama', 'क्ष', 1, 1, 3, 3],
  ['Thai with marks', 'คืน', 2, 2, 3, 3],
  ['Hangul syllables', '별밤', 2, 4, 2, 2],
  ['Hangul of conjoining jamo', '\u1107\u1167\u11af', 1, 2, 3, 3],
  ['Japanese', '星の夜', 3, 6, 3, 3],
  ['Chinese with full stop', '看星星。', 4, 8, 4, 4],
  ['half-width katakana', 'ﾎｼ', 2, 2, 2, 2],
  ['full-width letters', 'Ａ１', 2, 4, 2, 2],
  ['a rare character beyond the first plane', '𠮷', 1, 2, 1, 2],
  ['one emoji', '🌠', 1, 2, 1, 2],
  ['emoji and letters', 'a🌠b', 3, 4, 3, 4],
  ['skin tone', '👋🏽', 1, 2, 2, 4],
  ['joined: astronaut', '👩‍🚀', 1, 2, 3, 5],
  ['joined: family', '👨‍👩‍👧‍👦', 1, 2, 7, 11],
  ['a flag', '🇵🇹', 1, 2, 2, 4],
  ['two flags', '🇵🇹🇮🇪', 2, 4, 4, 8],
  ['keycap', '1️⃣', 1, 2, 3, 3],
  ['heart as emoji', '❤️', 1, 2, 2, 2],
  ['heart as text', '❤', 1, 1, 1, 1],
  ['telescope sign after a word', 'sky🔭', 4, 5, 4, 5],
  ['copyright sign', '©', 1, 1, 1, 1],
  ['copyright as emoji', '©️', 1, 2, 2, 2],
  ['typographic quotes and dash', '“a–b”', 5, 5, 5, 5],
  ['ellipsis', '…', 1, 1, 1, 1],
  ['soft hyphen', 'a\u00adb', 3, 3, 3, 3],
  ['a link', 'https://fennelmoor.example/rings', 32, 20, 32, 32],
  ['a link with a port', 'http://127.0.0.1:4310/a', 23, 20, 23, 23],
  ['a link in brackets', '(https://a.example/b)', 21, 22, 21, 21],
  ['a link with brackets inside', 'https://a.example/b_(c)', 23, 20, 23, 23],
  ['a link and a full stop', 'See https://a.example/b.', 24, 25, 24, 24],
  ['two links', 'https://a.example https://b.example', 35, 41, 35, 35],
  ['a link between wide characters', '星 https://a.example 星', 21, 26, 21, 21],
  ['www without scheme', 'www.a.example', 13, 20, 13, 13],
  ['no link: scheme only', 'https://', 8, 8, 8, 8],
];

describe('counting', () => {
  it.each(TABLE)('%s', (_name, text, graphemes, weighted, codePoints, utf16) => {
    expect({
      graphemes: countText(text, GRAPHEMES),
      weighted: countText(text, WEIGHTED),
      codePoints: countText(text, CODE_POINTS),
      utf16: countText(text, UTF16),
    }).toEqual({ graphemes, weighted, codePoints, utf16 });
  });

  it('holds at least forty captions in the table', () => expect(TABLE.length).toBeGreaterThanOrEqual(40));

  const text = fc.string({ unit: 'grapheme', maxLength: 60 });
  const mixed = fc
    .array(fc.oneof(text, fc.constantFrom('\r\n', 'e\u0301', '👩‍🚀', '🇵🇹', 'क्ष', '\u0600', '\u200d', '\ufe0f')), {
      maxLength: 12,
    })
    .map((parts) => parts.join(''));

  it('counts graphemes as the segmenter alone does, however simple and other characters mix', () => {
    const segmenter = new Intl.Segmenter('und', { granularity: 'grapheme' });
    fc.assert(
      fc.property(mixed, (sample) => countText(sample, GRAPHEMES) === [...segmenter.segment(sample)].length),
      { numRuns: 2000 },
    );
  });

  it('never weighs less than the plain count, nor more than twice', () => {
    fc.assert(
      fc.property(mixed, (sample) => {
        const plain = countText(sample, GRAPHEMES);
        const wide = countText(sample, { ...GRAPHEMES, wideWeight: 2 });
        return plain <= wide && wide <= 2 * plain;
      }),
    );
  });

  it('says that a text surely fits only of texts that do', () => {
    const parts = fc.array(fc.oneof(mixed, fc.constantFrom('https://a.example', 'www.a.example', 'http://b')), {
      maxLength: 6,
    });
    fc.assert(
      fc.property(parts, fc.integer({ min: 1, max: 120 }), fc.constantFrom<1 | 2>(1, 2), (texts, limit, wideWeight) => {
        const rule = { unit: 'grapheme', wideWeight, linkLength: 20, limit } as const;
        const text = texts.join(' ');
        return !surelyFit([text], rule) || countText(text, rule) <= limit;
      }),
      { numRuns: 1000 },
    );
    expect(surelyFit(['short'], { ...WEIGHTED, limit: 320 })).toBe(true);
  });

  it('finds the limit where the text before it still fits and one more does not', () => {
    fc.assert(
      fc.property(mixed, fc.integer({ min: 1, max: 30 }), (sample, limit) => {
        const { count, overAt } = measureText(sample, { ...GRAPHEMES, limit, fold: null });
        if (overAt === null) return count <= limit;
        return count > limit && countText(sample.slice(0, overAt), GRAPHEMES) <= limit;
      }),
    );
  });
});

describe('the fold', () => {
  const rule = { ...GRAPHEMES, limit: 100, fold: { units: 10, lines: 2 } };

  it('falls after its units', () => expect(measureText('0123456789abc', rule).foldAt).toBe(10));
  it('falls after its lines if those come first', () => expect(measureText('a\nb\nc', rule).foldAt).toBe(3));
  it('does not fall in a text that shows whole', () => expect(measureText('a\nb', rule).foldAt).toBeNull());
  it('takes a link of fixed length as one', () => {
    const pithline = fieldRule(
      SHIPPED_RULE_SHEETS.find((sheet) => sheet.slug === 'pithline')!,
      'caption',
    )!;
    const words = 'x'.repeat(140);
    const link = 'https://fennelmoor.example/a/very/long/address/that/goes/on';
    expect(measureText(`${words} ${link}`, pithline)).toEqual({ count: 172, foldAt: 141, overAt: null });
  });
});

describe('what only says how another character is shown', () => {
  const rule = { wideWeight: 2, linkLength: null } as const;
  it.each([
    ['❤️', 2, 2, 2],
    ['❤', 1, 1, 1],
    ['1️⃣', 2, 2, 2],
    ['#️⃣ a', 4, 4, 4],
    ['☎︎', 1, 1, 1],
    ['月', 2, 2, 2],
  ])('weighs nothing of its own in %s', (text, grapheme, codePoint, utf16) => {
    const count = (unit: 'grapheme' | 'codePoint' | 'utf16') => countText(text, { ...rule, unit });
    expect([count('grapheme'), count('codePoint'), count('utf16')]).toEqual([grapheme, codePoint, utf16]);
  });
  it('counts as a character where wide ones weigh no more than others', () =>
    expect(countText('❤️', { unit: 'codePoint', wideWeight: 1, linkLength: null })).toBe(2));
});
