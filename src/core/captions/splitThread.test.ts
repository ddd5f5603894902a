import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { countText } from './count';
import { partNumber, splitThread, type ThreadRule } from './splitThread';

const RULE: ThreadRule = { unit: 'grapheme', wideWeight: 2, linkLength: 31, limit: 60, most: 9, numbered: true };
const split = (text: string, rule: Partial<ThreadRule> = {}) => {
  const result = splitThread(text, { ...RULE, ...rule });
  if (!result.ok) throw new Error(result.refusal.message);
  return result.value;
};
const joined = ({ parts, cuts }: ReturnType<typeof split>) => parts.map((part, at) => part + (cuts[at] ?? '')).join('');

describe('a text in the parts of a thread', () => {
  it('keeps its sentences whole and its parts even', () => {
    const text =
      'Nobody stole them. The planet tips. We look along the plane. The sheet is thin. It is a line. Then it is nothing.';
    expect(split(text).parts).toEqual([
      'Nobody stole them. The planet tips. We look along the plane.'.slice(0, 35),
      'We look along the plane. The sheet is thin.',
      'It is a line. Then it is nothing.',
    ]);
  });

  it('of one part has no number', () => {
    expect(split('Short enough.').parts).toEqual(['Short enough.']);
    expect(split('A text of exactly sixty units, which leaves no room for more.'.slice(0, 60)).parts).toHaveLength(1);
  });

  it('cuts a sentence that does not fit at its clauses, then at words, then between characters', () => {
    expect(
      split('On the second of March somebody wrote in pencil, three times over, that there was no ring to be seen')
        .parts,
    ).toEqual([
      'On the second of March somebody wrote in pencil,',
      'three times over, that there was no ring to be seen',
    ]);
    expect(
      split('a sentence that has no comma anywhere and goes on and on until it must be cut').parts.every(
        (part) => part.length <= 56,
      ),
    ).toBe(true);
    expect(joined(split('x'.repeat(130)))).toBe('x'.repeat(130));
    expect(joined(split('月'.repeat(70)))).toBe('月'.repeat(70));
  });

  it('keeps room for the number of each part, and not for a longer one', () => {
    // 56 units and “ 1/2” fill a part of 60; “ 10/12” would not leave so much room.
    const sentence = `${'a'.repeat(55)}.`;
    expect(split(`${sentence} ${sentence}`, { most: 12 }).parts).toEqual([sentence, sentence]);
    const eleven = Array.from({ length: 11 }, () => 'A sentence of forty-nine units, which fits a part.').join(' ');
    for (const [at, part] of split(eleven, { most: 20 }).parts.entries())
      expect(countText(part + partNumber(at, 11), RULE)).toBeLessThanOrEqual(60);
  });

  it('lets what is longer than a small first part wait for a part that holds it', () => {
    const link = `https://fennelmoor.example/${'a'.repeat(20)}`;
    const rule = { linkLength: null, firstLimit: 30 };
    expect(split(`Look at it. ${link}`, rule).parts).toEqual(['Look at it.', link]);
    expect(split(`Look at it here: ${link}`, rule).parts).toEqual(['Look at it here:', link]);
    expect(splitThread(`${link} is where`, { ...RULE, ...rule })).toMatchObject({
      ok: false,
      refusal: { code: 'longLink' },
    });
  });

  it('cuts a first sentence that only the other parts would hold, and leaves those whole', () => {
    const long = 'This sentence is of forty-six units, all of it.';
    expect(split(`${long} ${long}`, { firstLimit: 30 }).parts.at(-1)).toBe(long);
  });

  it('cuts sentences that fit only where there would be too many parts', () => {
    const text = 'Forty units are taken by this sentence. '.repeat(6).trim();
    expect(split(text, { limit: 60, most: 6 }).parts).toHaveLength(6);
    expect(split(text, { limit: 60, most: 5 }).parts).toHaveLength(5);
    expect(splitThread(text, { ...RULE, most: 3 })).toMatchObject({ ok: false, refusal: { code: 'tooManyParts' } });
  });

  it('never cuts a link, a hashtag or a mention, and refuses one that is longer than a part', () => {
    const text = `See https://fennelmoor.example/${'a'.repeat(80)} and #NightSky with @rosa.amaro`;
    expect(
      split(text, { limit: 40 }).parts.some((part) => part.includes(`https://fennelmoor.example/${'a'.repeat(80)}`)),
    ).toBe(true);
    expect(splitThread(text, { ...RULE, linkLength: null })).toMatchObject({
      ok: false,
      refusal: { code: 'longLink' },
    });
  });

  it('has room for something else in its first part where asked', () => {
    const parts = split('One sentence here. Another one there. A third one.', { firstLimit: 30 }).parts;
    expect(parts[0]).toBe('One sentence here.');
  });

  const sentence = fc
    .array(fc.stringMatching(/^[a-z月]{1,9}$/), { minLength: 1, maxLength: 9 })
    .map((words) => `${words.join(' ')}.`);
  it('always fits, gives the text back, and has the fewest and most even parts there can be', () => {
    fc.assert(
      fc.property(
        fc.array(sentence, { minLength: 1, maxLength: 7 }),
        fc.integer({ min: 40, max: 90 }),
        (sentences, limit) => {
          const text = sentences.map((one) => one[0]!.toUpperCase() + one.slice(1)).join(' ');
          const rule = { ...RULE, limit, most: 20 };
          const thread = split(text, rule);
          expect(joined(thread)).toBe(text);
          const count = thread.parts.length;
          thread.parts.forEach((part, at) =>
            expect(countText(part + partNumber(at, count), rule)).toBeLessThanOrEqual(limit),
          );
          const own = sentences.map((one) => countText(one, rule));
          if (own.some((has) => has > limit - 6)) return;
          const squares = (parts: readonly number[]) => parts.reduce((sum, has) => sum + has * has, 0);
          // Every way to put the sentences into parts.
          const ways = Array.from({ length: 2 ** (own.length - 1) }, (_, mask) => {
            const parts = [own[0]!];
            own
              .slice(1)
              .forEach((has, at) => (mask & (1 << at) ? parts.push(has) : (parts[parts.length - 1]! += has + 1)));
            return parts;
          }).filter((parts) => parts.every((has, at) => has + countText(partNumber(at, parts.length), rule) <= limit));
          const fewest = Math.min(...ways.map((parts) => parts.length));
          expect(count).toBe(fewest);
          expect(squares(thread.parts.map((part) => countText(part, rule)))).toBe(
            Math.min(...ways.filter((parts) => parts.length === fewest).map(squares)),
          );
        },
      ),
      { numRuns: 300 },
    );
  });
});
