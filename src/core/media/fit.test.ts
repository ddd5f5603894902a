import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  cropPixels,
  isCrop,
  isShapeIn,
  leavingName,
  nearestShape,
  outBytes,
  outMime,
  outSize,
  proposeCrop,
  shapeChoices,
  shapeFaults,
  shapeOf,
} from './fit';

const RANGE = { narrowest: 0.75, widest: 1.6 };

describe('the fit of a picture', () => {
  it.each([
    ['inside', { width: 1120, height: 1430, crop: null }, []],
    ['too tall', { width: 900, height: 1400, crop: null }, ['shape']],
    ['too wide', { width: 2000, height: 1000, crop: null }, ['shape']],
    ['too tall, but cropped', { width: 900, height: 1400, crop: { x: 0, y: 0.1, width: 1, height: 0.8 } }, []],
    ['too few pixels', { width: 600, height: 600, crop: null }, ['small']],
    ['cropped to too few', { width: 1000, height: 1000, crop: { x: 0, y: 0, width: 0.5, height: 0.5 } }, ['small']],
    ['off by what rounding does', { width: 749, height: 1000, crop: null }, []],
  ])('is told: %s', (_name, picture, faults) => {
    expect(shapeFaults(picture, { shapes: RANGE, minWidth: 640 }).map(({ kind }) => kind)).toEqual(faults);
  });
  it('asks nothing where the rules do not', () => {
    expect(shapeFaults({ width: 1, height: 9_000, crop: null }, {})).toEqual([]);
  });
  it('is of what goes out', () => {
    const picture = { mime: 'image/gif', bytes: 9_000, width: 200, height: 100 };
    const recipe = { crop: { x: 0, y: 0, width: 0.5, height: 1 }, toMime: 'image/jpeg', toBytes: 4_000 };
    expect([
      outSize({ ...picture, ...recipe }),
      outMime({ ...picture, ...recipe }),
      outBytes({ ...picture, ...recipe }),
    ]).toEqual([{ width: 100, height: 100 }, 'image/jpeg', 4_000]);
    expect(outBytes({ bytes: 9, toBytes: 20 })).toBe(9);
  });
});

describe('shapes to crop to', () => {
  it('are those of the range that have a name', () => {
    expect(shapeChoices(RANGE).map(({ label }) => label)).toEqual(['3:4', '4:5', '1:1', '5:4', '4:3', '3:2']);
    expect(shapeChoices({ narrowest: 0.5, widest: 0.62 }).map(({ label }) => label)).toEqual(['9:16']);
    expect(shapeChoices({ narrowest: 0.3, widest: 0.4 })).toEqual([{ label: '0.35', shape: 0.35 }]);
    expect(shapeChoices(null)).toHaveLength(9);
  });
  it('begin with the nearest', () => {
    expect([0.5, 1.1, 3].map((shape) => nearestShape(shape, RANGE))).toEqual([0.75, 1.1, 1.6]);
  });
});

describe('a proposed crop', () => {
  const pictures = fc.record({
    width: fc.integer({ min: 200, max: 8_000 }),
    height: fc.integer({ min: 200, max: 8_000 }),
  });
  const shapes = fc.double({ min: 0.4, max: 2.5, noNaN: true });
  const share = fc.double({ min: 0, max: 1, noNaN: true });
  const focuses = fc.record({ x: share, y: share });

  it('has the shape, lies inside, and keeps the focus in sight', () => {
    fc.assert(
      fc.property(pictures, shapes, focuses, (picture, shape, focus) => {
        const crop = proposeCrop(picture, shape, focus);
        expect(isCrop(crop)).toBe(true);
        expect((crop.width * picture.width) / (crop.height * picture.height)).toBeCloseTo(shape, 6);
        const slack = 1e-9;
        expect(focus.x).toBeGreaterThanOrEqual(crop.x - slack);
        expect(focus.x).toBeLessThanOrEqual(crop.x + crop.width + slack);
        expect(focus.y).toBeGreaterThanOrEqual(crop.y - slack);
        expect(focus.y).toBeLessThanOrEqual(crop.y + crop.height + slack);
      }),
    );
  });
  it('is the largest there is: it touches two edges', () => {
    fc.assert(
      fc.property(pictures, shapes, (picture, shape) => {
        const { width, height } = proposeCrop(picture, shape);
        expect(Math.max(width, height)).toBe(1);
      }),
    );
  });
  it('fits the range it was made for, in whole pixels too', () => {
    fc.assert(
      fc.property(pictures, focuses, (picture, focus) => {
        const crop = proposeCrop(picture, nearestShape(shapeOf(picture), RANGE), focus);
        const pixels = cropPixels(picture, crop);
        expect(isShapeIn(shapeOf(pixels), RANGE)).toBe(true);
        expect(pixels.left + pixels.width).toBeLessThanOrEqual(picture.width);
        expect(pixels.top + pixels.height).toBeLessThanOrEqual(picture.height);
      }),
    );
  });
});

it.each([
  [{ x: 0, y: 0, width: 1, height: 1 }, true],
  [{ x: -0.1, y: 0, width: 1, height: 1 }, false],
  [{ x: 0.5, y: 0, width: 0.6, height: 1 }, false],
  [{ x: 0, y: 0, width: 0, height: 1 }, false],
  [{ x: Number.NaN, y: 0, width: 1, height: 1 }, false],
])('crop %j is one: %s', (crop, is) => expect(isCrop(crop)).toBe(is));

describe('the name of what goes out', () => {
  it.each([
    ['dome.jpg', 'image/jpeg', null, 'dome.jpg'],
    ['dome.jpeg', 'image/jpeg', 'image/jpeg', 'dome.jpeg'],
    ['dome.night.webp', 'image/webp', 'image/jpeg', 'dome.night.jpg'],
    ['dome', 'image/svg+xml', 'image/png', 'dome.png'],
  ])('%s of %s made into %s is %s', (fileName, mime, toMime, expected) =>
    expect(leavingName(fileName, { mime, toMime })).toBe(expected),
  );
});
