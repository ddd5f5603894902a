import sharp from 'sharp';
import { PICTURE_LIMIT_PIXELS } from '@/core/media/limits';

/** Side of the square thumbnails, in pixels. */
const THUMB_SIDE = 192;
/** As strict as a picture is decoded, everywhere: what is taken in can leave. */
export const STRICTNESS = { failOn: 'error', limitInputPixels: PICTURE_LIMIT_PIXELS } as const;

/** What a picture turned out to be: its pixels, after the orientation that its file asks for, and a small copy. */
export interface PictureDecoded {
  width: number;
  height: number;
  thumb: Uint8Array;
}

/** Decodes a picture to its end, a drawing as its bitmap; null when that cannot be done. */
export async function decode(path: string): Promise<PictureDecoded | null> {
  try {
    const image = sharp(path, STRICTNESS);
    const { autoOrient } = await image.metadata();
    const thumb = await image
      .autoOrient()
      .resize(THUMB_SIDE, THUMB_SIDE, { fit: 'cover' })
      .webp({ quality: 78 })
      .toBuffer();
    return { width: autoOrient.width, height: autoOrient.height, thumb };
  } catch (error) {
    // sharp has no codes for this: whatever libvips cannot decode comes as a plain Error.
    if (error instanceof Error) return null;
    throw error;
  }
}

/** A drawing as a PNG. It is read from memory, so that nothing beside it can be drawn into it; null when it cannot be drawn. */
export async function bitmapOf(drawing: Uint8Array): Promise<Uint8Array | null> {
  try {
    return await sharp(drawing, STRICTNESS).png().toBuffer();
  } catch (error) {
    if (error instanceof Error) return null;
    throw error;
  }
}
