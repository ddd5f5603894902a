import { createHash } from 'node:crypto';
import sharp, { type Sharp } from 'sharp';
import type { ParcelPicture } from '@/core/delivery/network';
import { AS_IT_IS, cropPixels, type Recipe } from '@/core/media/fit';
import { PICTURE_LIMIT_PIXELS, readPictureFile } from './mediaFiles';

/** Each try to come under a limit of bytes has this share of the width before. */
const SHRINK = 0.85;
/** Tries before it is given up; by then less than a hundredth of the pixels are left. */
const TRIES = 16;
/** Quality of what is written anew, of 100. */
const QUALITY = 88;

/**
 * Makes the picture that leaves out of a stored one: upright, cropped, converted and scaled down as its recipe says, and
 * without place, camera or any other data about it. An animation keeps its frames in every type that can move.
 *
 * @throws when the file is not there, or cannot be brought under the bytes asked for
 */
export async function renderPicture(
  folder: string,
  stored: ParcelPicture,
): Promise<{ bytes: Uint8Array; picture: ParcelPicture }> {
  const { recipe = AS_IT_IS, rendered: _before, ...kept } = stored;

  const original = await readPictureFile(folder, stored.sha256);
  const { bytes, width, height } = await render(original, stored.mime, recipe);
  const mime = leavingMime(stored.mime, recipe);
  const sha256 = createHash('sha256').update(bytes).digest('hex');
  return { bytes, picture: { ...kept, mime, width, height, bytes: bytes.length, sha256 } };
}

/** The types that can move. */
const MOVING = ['image/gif', 'image/webp'];

/** The type a picture leaves as: its own, or the one it is converted to; a drawing as the picture it is drawn to. */
const leavingMime = (mime: string, { toMime }: Recipe): string =>
  toMime ?? (mime === 'image/svg+xml' ? 'image/png' : mime);

/** A picture after its recipe: its bytes, and its size in pixels. */
export async function render(
  original: Buffer,
  mime: string,
  recipe: Recipe,
): Promise<{ bytes: Buffer; width: number; height: number }> {
  const to = leavingMime(mime, recipe);
  // As strict as when it was taken in, and no stricter: what is taken in can leave.
  const strictness = { failOn: 'error', limitInputPixels: PICTURE_LIMIT_PIXELS } as const;
  const { autoOrient, pages = 1 } = await sharp(original, strictness).metadata();
  const animated = pages > 1 && MOVING.includes(to);
  let width = recipe.crop ? cropPixels(autoOrient, recipe.crop).width : autoOrient.width;
  for (let attempt = 0; attempt < TRIES; attempt++) {
    const upright = sharp(original, { animated, ...strictness }).autoOrient();
    const cropped = recipe.crop ? upright.extract(cropPixels(autoOrient, recipe.crop)) : upright;
    const sized = attempt === 0 ? cropped : cropped.resize({ width });
    const { data, info } = await write(sized, to).toBuffer({ resolveWithObject: true });
    // The frames of an animation lie below one another.
    if (recipe.toBytes === null || data.length <= recipe.toBytes)
      return { bytes: data, width: info.width, height: info.pageHeight ?? info.height };
    width = Math.max(1, Math.round(width * SHRINK));
  }
  throw new Error(`the picture could not be brought under ${recipe.toBytes} bytes`);
}

function write(image: Sharp, mime: string): Sharp {
  switch (mime) {
    case 'image/png':
      return image.png();
    case 'image/webp':
      return image.webp({ quality: QUALITY });
    case 'image/gif':
      return image.gif();
    default:
      // What shows through a transparent picture is white, as on paper.
      return image.flatten({ background: '#ffffff' }).jpeg({ quality: QUALITY, mozjpeg: false });
  }
}
