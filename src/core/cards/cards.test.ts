import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { blend, contrast } from '../brands/colours';
import { isShapeIn, shapeOf } from '../media/fit';
import { SHIPPED_RULE_SHEETS } from '../rulesheets/shipped';
import { altOfCard, cardColours, cardSizes, CARD_LAYOUTS, readCard, scrimFor, wordsFor, type Card } from './card';
import { composeCard, isRtl, type Drawn } from './compose';
import { breakable, LINE, setText } from './setText';

/** A font whose letters are all half as wide as they are high. */
const measure = (text: string, size: number) => [...text].length * size * 0.5;
const fonts = { words: measure, by: measure };
const CARD: Card = {
  ...{ layout: 'ruled', kind: 'quote', text: 'The rings are thin as paper.', by: 'Wen', width: 1280, height: 1280 },
  ...{ ground: '#141C33', ink: '#FFFFFF', accent: '#E0A526', picture: null, follows: null },
};
const composed = (part: Partial<Card> = {}) => {
  const result = composeCard({ ...CARD, ...part }, fonts);
  if (!result.ok) throw new Error(result.refusal.message);
  return result.value;
};
const linesOf = (drawn: readonly Drawn[]) => drawn.flatMap((one) => (one.draw === 'line' ? [one] : []));
const hexes = fc.integer({ min: 0, max: 0xffffff }).map((n) => `#${n.toString(16).padStart(6, '0').toUpperCase()}`);

describe('words set into a box', () => {
  it('are as large as they go, in lines as even as can be', () => {
    expect(setText('one two three four', { width: 100, height: 60 }, { largest: 40, least: 8 }, measure)).toEqual({
      size: 20,
      lines: ['one two', 'three four'],
    });
  });

  it('always lie in their box, and lose nothing', () => {
    const words = fc.array(fc.constantFrom('ring', 'a', 'night,', '土星の環', 'observatory', '“so”', '2038'), {
      minLength: 1,
      maxLength: 40,
    });
    fc.assert(
      fc.property(
        words,
        fc.integer({ min: 60, max: 900 }),
        fc.integer({ min: 40, max: 900 }),
        (list, width, height) => {
          const text = list.join(' ');
          const set = setText(text, { width, height }, { largest: 120, least: 10 }, measure);
          if (!set) return;
          expect(set.lines.join('').replace(/\s/g, '')).toBe(text.replace(/\s/g, ''));
          for (const line of set.lines) expect(measure(line, set.size)).toBeLessThanOrEqual(width);
          expect(set.lines.length * set.size * LINE).toBeLessThanOrEqual(height);
          expect(set.size).toBeGreaterThanOrEqual(10);
        },
      ),
    );
  });

  it('are cut inside a word only in the smallest size, and refused where even that holds too little', () => {
    const box = { width: 50, height: 100 };
    expect(setText('x'.repeat(20), box, { largest: 40, least: 10 }, measure)!.lines).toEqual([
      'x'.repeat(10),
      'x'.repeat(10),
    ]);
    expect(setText('word '.repeat(100), box, { largest: 40, least: 10 }, measure)).toBeNull();
  });

  it('break between words, and where scripts have no spaces never before what closes', () => {
    expect(breakable('one, two')).toEqual(['one, ', 'two']);
    const pieces = breakable('土星の環は、見えなくなります。');
    expect(pieces.length).toBeGreaterThan(3);
    for (const piece of pieces) expect(piece).not.toMatch(/^[、。]/);
    expect(pieces.join('')).toBe('土星の環は、見えなくなります。');
  });
});

describe('a card', () => {
  it.each(CARD_LAYOUTS)('set %s keeps all its words inside its edges, read from where its letters are', (layout) => {
    for (const text of ['The rings are thin as paper.', 'حلقات زحل تختفي', '土星の環が消える'])
      for (const { width, height } of [
        { width: 1280, height: 800 },
        { width: 1280, height: 1828 },
      ]) {
        const lines = linesOf(composed({ layout, text, width, height }));
        expect(lines.length).toBeGreaterThan(1);
        for (const line of lines) {
          const wide = measure(line.text, line.size);
          expect(line.isRtl).toBe(text.startsWith('ح'));
          const [left, right] = line.isRtl ? [line.x - wide, line.x] : [line.x, line.x + wide];
          expect(left).toBeGreaterThanOrEqual(0);
          expect(right).toBeLessThanOrEqual(width);
          expect(line.y).toBeLessThan(height);
        }
      }
  });

  it('of a number shows the number large above its sentence', () => {
    const [number, ...rest] = linesOf(composed({ kind: 'number', text: 'The rings are 280,000 kilometres wide.' }));
    expect(number!.text).toBe('280,000');
    expect(number!.size).toBeGreaterThan(2 * rest[0]!.size);
    expect(linesOf(composed({ kind: 'number', text: 'None at all.' }))[0]!.text).toContain('None');
  });

  it('of a quote has the marks of its script, unless it has some', () => {
    const first = (text: string) => linesOf(composed({ text }))[0]!.text;
    expect(first('Look up.')).toBe('“Look up.”');
    expect(first('She said “look up”.')).not.toMatch(/^““/);
    expect(first('見える')).toBe('「見える」');
  });

  it('that is too long says so with a length that fits', () => {
    const refused = composeCard({ ...CARD, text: 'word '.repeat(600).trim(), width: 1280, height: 300 }, fonts);
    expect(refused.ok || refused.refusal.message).toMatch(/Keep it to some \d+ letters/);
    const room = Number(/some (\d+)/.exec(refused.ok ? '' : refused.refusal.message)![1]);
    expect(room).toBeGreaterThan(20);
    expect(composeCard({ ...CARD, text: 'word '.repeat(room / 6).trim(), width: 1280, height: 300 }, fonts).ok).toBe(
      true,
    );
  });

  it('is read from the right by its first letter', () => {
    expect(['«حلقات» ring', '12 שנים', 'ring حلقات', '123'].map(isRtl)).toEqual([true, true, false, false]);
  });

  it('is refused without words, with too many, on a ground that swallows them, and in no size', () => {
    const code = (part: Partial<Card>) => {
      const read = readCard({ ...CARD, ...part });
      return read.ok ? 'ok' : read.refusal.code;
    };
    expect(code({})).toBe('ok');
    expect(code({ text: ' \n ' })).toBe('noText');
    for (const unseen of ['\u200b', '\u2800', '\u3164\ufe0f', '\u0301', '\u0007'])
      expect(code({ text: unseen })).toBe('noText');
    expect(code({ text: '❤️' })).toBe('ok');
    expect(code({ text: 'x'.repeat(401) })).toBe('tooLong');
    expect(code({ by: 'x'.repeat(81) })).toBe('tooLong');
    expect(code({ ink: '#222222' })).toBe('pale');
    expect(code({ ground: 'red' })).toBe('badColour');
    expect(code({ width: 10 })).toBe('badSize');
  });

  it('has its words for an alt text, and takes them anew from its post', () => {
    expect(altOfCard(CARD)).toBe('The rings are thin as paper. (Wen)');
    const post = { headline: '', caption: '\n First line. \nSecond.' };
    expect(wordsFor({ follows: 'firstLine' }, post)).toBe('First line.');
    expect(wordsFor({ follows: 'headline' }, post)).toBeNull();
    expect(wordsFor({ follows: null }, post)).toBeNull();
  });
});

describe('colours and sizes of cards', () => {
  it('let words stand out, whatever the brand’s colours are', () => {
    fc.assert(
      fc.property(fc.array(hexes, { maxLength: 6 }), (ofBrand) => {
        const colours = cardColours(ofBrand);
        expect(colours.length).toBeGreaterThan(0);
        for (const { ground, ink, accent } of colours) {
          expect(contrast(ink, ground)).toBeGreaterThanOrEqual(4.5);
          expect(contrast(accent, ground)).toBeGreaterThanOrEqual(3);
        }
      }),
    );
  });

  it('cover a picture as much as its lightest and darkest parts ask for', () => {
    fc.assert(
      fc.property(hexes, hexes, (lightest, darkest) => {
        const [colours] = cardColours(['#141C33']);
        const share = scrimFor(colours!, [lightest, darkest]);
        for (const colour of [lightest, darkest])
          expect(contrast(blend(colours!.ground, colour, share), colours!.ink)).toBeGreaterThanOrEqual(4.45);
      }),
    );
    expect(scrimFor(cardColours(['#141C33'])[0]!, ['#000000'])).toBeLessThan(0.4);
  });

  it('are the narrowest and the widest a format takes, inside its rules, at twice its least width', () => {
    for (const sheet of SHIPPED_RULE_SHEETS)
      for (const rule of sheet.formats)
        for (const size of cardSizes(rule)) {
          if (rule.shapes) expect(isShapeIn(shapeOf(size), rule.shapes)).toBe(true);
          if (rule.minWidth) expect(size.width).toBe(2 * rule.minWidth);
        }
    expect(cardSizes(undefined)).toEqual([
      { width: 1200, height: 1500 },
      { width: 1200, height: 800 },
    ]);
  });
});
