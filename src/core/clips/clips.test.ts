import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isShapeIn, shapeOf } from '../media/fit';
import { captionAt, captionsOf, settingOf } from './captions';
import { frameFor, isBeyond } from './frame';

const TALL = { shapes: { narrowest: 9 / 16, widest: 9 / 16 } };

describe('the frame of a clip', () => {
  it('is the largest part in a shape of the channel, as near to the point of interest as the edges let it', () => {
    const wide = { width: 1_920, height: 1_080 };
    expect(frameFor(wide, TALL, { x: 0.5, y: 0.5 })).toMatchObject({
      part: { left: 656, top: 0, width: 608, height: 1_080 },
      size: { width: 608, height: 1_080 },
    });
    expect(frameFor(wide, TALL, { x: 0, y: 0.9 }).part.left).toBe(0);
    expect(frameFor(wide, { shapes: null }, { x: 0.1, y: 0.5 })).toMatchObject({ part: wide, size: wide });
  });

  it('is even, of a shape that is taken, inside the recording, and never larger than it', () => {
    const side = fc.integer({ min: 90, max: 4_000 });
    const share = fc.double({ min: 0, max: 1, noNaN: true });
    fc.assert(
      fc.property(side, side, share, share, (width, height, x, y) => {
        const { part, size } = frameFor({ width, height }, TALL, { x, y });
        expect([size.width % 2, size.height % 2]).toEqual([0, 0]);
        expect(part.left + part.width).toBeLessThanOrEqual(width);
        expect(part.top + part.height).toBeLessThanOrEqual(height);
        expect(size.width).toBeLessThanOrEqual(part.width + 1);
        expect(Math.min(size.width, size.height)).toBeLessThanOrEqual(1_080);
        if (part.width > 200) expect(isShapeIn(shapeOf(size), TALL.shapes)).toBe(true);
      }),
    );
  });

  it('is none where the clip ends after its recording', () => {
    expect([isBeyond({ outMs: 60_050 }, 60_000), isBeyond({ outMs: 61_000 }, 60_000)]).toEqual([false, true]);
  });
});

describe('captions of a clip', () => {
  it('hold at most two lines, each as long as its share of what is said', () => {
    const captions = captionsOf(
      [{ inMs: 0, outMs: 4_000, said: 'Nobody hears it go, and everybody hears it land on the deck.' }],
      16,
    );
    expect(captions.map(({ lines }) => lines)).toEqual([
      ['Nobody hears it', 'go, and'],
      ['everybody hears', 'it land on the'],
      ['deck.'],
    ]);
    expect(captions[0]!.inMs).toBe(0);
    expect(captionAt(captions, 100)!.lines[0]).toBe('Nobody hears it');
    expect(captionAt(captions, 9_000)).toBeUndefined();
  });

  it('lose no letter, keep their order and never overlap', () => {
    const said = fc.array(
      fc.record({
        text: fc.string({ minLength: 1, maxLength: 90, unit: 'grapheme' }),
        ms: fc.integer({ min: 1, max: 9_000 }),
      }),
      { maxLength: 6 },
    );
    fc.assert(
      fc.property(said, fc.integer({ min: 12, max: 60 }), (parts, perLine) => {
        let at = 0;
        const lines = parts.map(({ text, ms }) => ({ inMs: at, outMs: (at += ms), said: text.trim() || '.' }));
        const captions = captionsOf(lines, perLine);
        const bare = (text: string) => text.replace(/\s/g, '');
        expect(bare(captions.flatMap((one) => one.lines).join(''))).toBe(bare(lines.map((one) => one.said).join('')));
        captions.forEach((one, place) => {
          expect(one.outMs).toBeGreaterThanOrEqual(one.inMs);
          if (place > 0) expect(captions[place - 1]!.outMs).toBeLessThanOrEqual(one.inMs);
          expect(one.lines.length).toBeLessThanOrEqual(2);
        });
      }),
    );
  });

  it('are as large as the picture lets them be', () => {
    expect(settingOf({ width: 1_080, height: 1_920 })).toEqual({ letters: 59, perLine: 28 });
  });
});
