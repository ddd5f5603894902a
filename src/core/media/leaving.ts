import type { Recipe } from './fit';

/** The media type of a drawing. */
export const DRAWING = 'image/svg+xml';

/** The type a picture leaves as: its own, or the one it is converted to; a drawing as the picture it is drawn to. */
export const leavingMime = (mime: string, { toMime }: Pick<Recipe, 'toMime'>): string =>
  toMime ?? (mime === DRAWING ? 'image/png' : mime);
