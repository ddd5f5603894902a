/** Pixels of one picture that Bimlo takes in. */
export const PICTURE_LIMIT_PIXELS = 100_000_000;
