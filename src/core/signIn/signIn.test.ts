import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readPassword } from './password';
import { LONGEST_WAIT_MS, waitAfterMs, waitWords } from './slowDown';

const codeOf = (typed: string, names?: string[]) => {
  const read = readPassword(typed, names);
  return read.ok ? read.value : read.refusal.code;
};

describe('a password', () => {
  it.each([
    ['three grey herons', 'three grey herons'],
    ['  spaces count  ', '  spaces count  '],
    ['пароль-из-слов', 'пароль-из-слов'],
    // The same letters from another keyboard, composed and not.
    ['cafe\u0301 au lait', 'caf\u00e9 au lait'],
    ['short', 'shortPassword'],
    ['😀'.repeat(9), 'shortPassword'],
    ['x'.repeat(201), 'longPassword'],
    ['Password123', 'guessedPassword'],
    ['aaaaaaaaaaaa', 'guessedPassword'],
    ['Ada Lovelace', 'guessedPassword'],
  ])('%s', (typed, outcome) => expect(codeOf(typed, ['Ada Lovelace', 'ada-lovelace'])).toBe(outcome));
});

describe('the wait after wrong passwords', () => {
  it('is none at first, then doubles, and has an end', () => {
    expect([0, 9, 10, 11, 14].map((wrong) => waitAfterMs(wrong, 10))).toEqual([0, 0, 1_000, 2_000, 16_000]);
    fc.assert(
      fc.property(fc.nat(5_000), fc.nat(100), (wrong, atOnce) => {
        const wait = waitAfterMs(wrong, atOnce);
        expect(wait).toBeGreaterThanOrEqual(waitAfterMs(Math.max(0, wrong - 1), atOnce));
        expect(wait).toBeLessThanOrEqual(LONGEST_WAIT_MS);
      }),
    );
  });

  it('is told in whole seconds and minutes', () =>
    expect([1, 1_000, 1_001, 60_000, 61_000].map(waitWords)).toEqual([
      '1 second',
      '1 second',
      '2 seconds',
      '1 minute',
      '2 minutes',
    ]));
});
