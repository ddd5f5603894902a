import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cleanDeep, cleanText } from './clean';

describe('text as it is kept', () => {
  it.each([
    ['a NUL', 'a\u0000b', 'ab'],
    ['a bell and an escape', '\u0007a\u001b[31m', 'a[31m'],
    ['tab and line breaks', 'a\tb\r\nc', 'a\tb\r\nc'],
    ['a lone high surrogate', 'a\ud83d', 'a\ufffd'],
    ['a lone low surrogate', '\ude00 x', '\ufffd x'],
    ['an emoji', '👩‍🚀', '👩‍🚀'],
    ['direction marks', 'a\u200f c', 'a\u200f c'],
  ])('%s', (_name, typed, kept) => expect(cleanText(typed)).toBe(kept));

  it('is well-formed whatever comes, and stays as it is the second time', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary' }), (text) => {
        const kept = cleanText(text);
        return encodeURIComponent(kept) !== '' || kept === ''
          ? cleanText(kept) === kept && !kept.includes('\u0000')
          : false;
      }),
    );
  });

  it('reaches texts at any depth, and takes __proto__ as a word', () => {
    const cleaned = cleanDeep(JSON.parse('{"a":["x\\u0000",{"__proto__":{"b\\u0000":1}}]}')) as { a: unknown[] };
    expect(cleaned.a[0]).toBe('x');
    expect(Object.keys(cleaned.a[1] as object)).toEqual(['__proto__']);
    expect(JSON.stringify(cleaned)).toBe('{"a":["x",{"__proto__":{"b":1}}]}');
  });
});
