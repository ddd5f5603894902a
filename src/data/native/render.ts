import sharp, { type Sharp } from 'sharp';
import { cropPixels, type Recipe } from '@/core/media/fit';
import { leavingMime } from '@/core/media/leaving';
import { STRICTNESS } from './decode';

/** Each try to come under a limit of bytes has this share of the width before. */
const SHRINK = 0.85;
/** Tries before it is given up; by then less than a hundredth of the pixels are left. */
const TRIES = 16;
/** Quality of what is written anew, of 100. */
const QUALITY = 88;

/** The types that can move. */
const MOVING = ['image/gif', 'image/webp'];

/** A picture after its recipe: its bytes, and its size in pixels. */
export async function render(
  original: Buffer,
  mime: string,
  recipe: Recipe,
): Promise<{ bytes: Buffer; width: number; height: number }> {
  const to = leavingMime(mime, recipe);
  const { autoOrient, pages = 1 } = await sharp(original, STRICTNESS).metadata();
  const animated = pages > 1 && MOVING.includes(to);
  let width = recipe.crop ? cropPixels(autoOrient, recipe.crop).width : autoOrient.width;
  for (let attempt = 0; attempt < TRIES; attempt++) {
    const upright = sharp(original, { animated, ...STRICTNESS }).autoOrient();
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
