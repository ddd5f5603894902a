import sharp from 'sharp';
import { FilePathSource, Input, MATROSKA, MP4, QTFF, WEBM } from 'mediabunny';
import { AS_IT_IS, type PictureMeasures } from '@/core/media/fit';
import { stat } from 'node:fs/promises';

const TYPES: Record<string, string> = {
  jpeg: 'image/jpeg',
  png: 'image/png',
  webp: 'image/webp',
  gif: 'image/gif',
  svg: 'image/svg+xml',
};

/** What a picture or video that arrived really is, whatever its sender says; null when it cannot be read. */
export async function lookInto(path: string): Promise<PictureMeasures | null> {
  const bytes = (await stat(path)).size;
  const image = await sharp(path)
    .metadata()
    .catch(() => null);
  if (image) {
    const { width, height } = image.autoOrient;
    return {
      ...AS_IT_IS,
      bytes,
      mime: TYPES[image.format] ?? `image/${image.format}`,
      width,
      height: image.pageHeight ?? height,
    };
  }
  const input = new Input({ formats: [MP4, QTFF, WEBM, MATROSKA], source: new FilePathSource(path) });
  try {
    const [track, mime] = [await input.getPrimaryVideoTrack(), await input.getMimeType()];
    const durationMs = Math.round((await input.computeDuration()) * 1_000);
    if (!track || !(durationMs > 0)) return null;
    return {
      ...AS_IT_IS,
      bytes,
      mime: mime.split(';')[0]!,
      width: track.displayWidth,
      height: track.displayHeight,
      durationMs,
    };
  } catch (error) {
    // mediabunny has no codes for this: what it cannot read comes as a plain Error.
    if (error instanceof Error) return null;
    throw error;
  } finally {
    input.dispose();
  }
}
