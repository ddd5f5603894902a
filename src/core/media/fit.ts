import type { FormatRule, ShapeRange } from '../rulesheets/types';

/** A part of a picture, in shares of its width and height (0 to 1) from its upper left corner. */
export interface Crop {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** What is done to a picture on its way out; the original stays as it is. */
export interface Recipe {
  /** The part that goes out; null for all of it. */
  crop: Crop | null;
  /** The media type it is converted to; null for its own. */
  toMime: string | null;
  /** It is scaled down until it has at most these bytes; null for no such wish. */
  toBytes: number | null;
}

/** Nothing is done to it but what is always done: its orientation is applied, and where it was taken is removed. */
export const AS_IT_IS: Recipe = { crop: null, toMime: null, toBytes: null };

/** What a picture came to when it was made ready to leave. */
export interface Rendered {
  mime: string;
  width: number;
  height: number;
  bytes: number;
}

/** A picture as the rules see it, with what is done to it on its way out. */
export interface PictureMeasures extends Recipe {
  /** What it came to when that was done; absent or null while it was not, and then its measures are reckoned. */
  rendered?: Rendered | null;
  mime: string;
  bytes: number;
  /** Pixels, after the orientation the file asks for. */
  width: number;
  height: number;
  /** How long it runs, in milliseconds; absent or null for a picture. */
  durationMs?: number | null;
}

/** Width to height. */
export const shapeOf = ({ width, height }: { width: number; height: number }): number => width / height;

/** Pixels of what goes out. */
export function outSize(picture: Pick<PictureMeasures, 'width' | 'height' | 'crop' | 'rendered'>): {
  width: number;
  height: number;
} {
  if (picture.rendered) return { width: picture.rendered.width, height: picture.rendered.height };
  const { width, height } = picture.crop ? cropPixels(picture, picture.crop) : picture;
  return { width, height };
}

/** The media type of what goes out. */
export const outMime = ({ mime, toMime, rendered }: Pick<PictureMeasures, 'mime' | 'toMime' | 'rendered'>): string =>
  rendered?.mime ?? toMime ?? mime;

/** The media types a picture can be converted to, with the ending of a file of each. */
const ENDINGS: Record<string, string> = { 'image/jpeg': 'jpg', 'image/png': 'png', 'image/webp': 'webp' };
export const OUT_TYPES: readonly string[] = Object.keys(ENDINGS);

/** The name of the file that goes out: the one it has, with the ending of another type where it was converted. */
export function leavingName(fileName: string, { mime, toMime }: Pick<PictureMeasures, 'mime' | 'toMime'>): string {
  if (toMime === null || toMime === mime) return fileName;
  return `${fileName.replace(/\.[^.]*$/, '')}.${ENDINGS[toMime] ?? 'bin'}`;
}

/** The most bytes that go out. */
export const outBytes = ({
  bytes,
  toBytes,
  rendered,
}: Pick<PictureMeasures, 'bytes' | 'toBytes' | 'rendered'>): number =>
  rendered ? rendered.bytes : toBytes === null ? bytes : Math.min(bytes, toBytes);

/** Shares of a shape that rounding to whole pixels may be off by. */
const ROUNDING = 0.01;

/** Whether a shape lies in a range, give or take what rounding to pixels does. */
export const isShapeIn = (shape: number, { narrowest, widest }: ShapeRange): boolean =>
  shape >= narrowest * (1 - ROUNDING) && shape <= widest * (1 + ROUNDING);

/** What a network would refuse a picture for, and what mends it. */
type PictureFault = { kind: 'shape' } | { kind: 'small'; has: number; needs: number };

/** The faults of a picture's shape and size under the rule of a format. One of unknown size (0) has none that is known. */
export function shapeFaults(
  picture: Pick<PictureMeasures, 'width' | 'height' | 'crop' | 'rendered'>,
  rule: Pick<FormatRule, 'shapes' | 'minWidth'>,
): PictureFault[] {
  if (picture.width === 0 || picture.height === 0) return [];
  const size = outSize(picture);
  const faults: PictureFault[] = [];
  if (rule.shapes && !isShapeIn(shapeOf(size), rule.shapes)) faults.push({ kind: 'shape' });
  if (rule.minWidth && size.width < rule.minWidth)
    faults.push({ kind: 'small', has: size.width, needs: rule.minWidth });
  return faults;
}

/** Shapes people know by name, narrow to wide. */
const KNOWN_SHAPES: readonly (readonly [number, number])[] = [
  [9, 16],
  [2, 3],
  [3, 4],
  [4, 5],
  [1, 1],
  [5, 4],
  [4, 3],
  [3, 2],
  [16, 9],
];

/** A shape that may be cropped to. */
interface ShapeChoice {
  label: string;
  /** Width to height. */
  shape: number;
}

/** The shapes of a range that people know by name; its own bounds where none lies in it. */
export function shapeChoices(range: ShapeRange | null): ShapeChoice[] {
  const known = KNOWN_SHAPES.map(([width, height]) => ({ label: `${width}:${height}`, shape: width / height }));
  if (!range) return known;
  const inside = known.filter(({ shape }) => isShapeIn(shape, range));
  if (inside.length > 0) return inside;
  const middle = (range.narrowest + range.widest) / 2;
  return [{ label: middle.toFixed(2), shape: middle }];
}

/** The shape of a range that is nearest to a picture's own. */
export const nearestShape = (shape: number, { narrowest, widest }: ShapeRange): number =>
  Math.min(widest, Math.max(narrowest, shape));

/**
 * The largest part of a picture that has a shape, placed so that the focus lies as near its middle as the picture's edges
 * let it.
 *
 * @param shape width to height of the part in pixels
 * @param focus what has to stay in sight, in shares of width and height; the middle by default
 */
export function proposeCrop(
  picture: { width: number; height: number },
  shape: number,
  focus: { x: number; y: number } = { x: 0.5, y: 0.5 },
): Crop {
  const own = shapeOf(picture);
  const [width, height] = shape < own ? [shape / own, 1] : [1, own / shape];
  const start = (middle: number, length: number) => Math.min(1 - length, Math.max(0, middle - length / 2));
  return { x: start(focus.x, width), y: start(focus.y, height), width, height };
}

/** The pixels a crop means: whole, inside the picture, at least one by one. */
export function cropPixels(
  { width, height }: { width: number; height: number },
  crop: Crop,
): { left: number; top: number; width: number; height: number } {
  const left = Math.min(width - 1, Math.max(0, Math.round(crop.x * width)));
  const top = Math.min(height - 1, Math.max(0, Math.round(crop.y * height)));
  return {
    left,
    top,
    width: Math.max(1, Math.min(width - left, Math.round(crop.width * width))),
    height: Math.max(1, Math.min(height - top, Math.round(crop.height * height))),
  };
}

/** Whether a crop lies inside the picture and has some size. */
export function isCrop({ x, y, width, height }: Crop): boolean {
  const slack = 1e-6;
  return (
    [x, y, width, height].every(Number.isFinite) &&
    x >= 0 &&
    y >= 0 &&
    width > 0.01 &&
    height > 0.01 &&
    x + width <= 1 + slack &&
    y + height <= 1 + slack
  );
}
