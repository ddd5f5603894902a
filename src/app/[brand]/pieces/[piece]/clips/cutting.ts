import {
  BlobSource,
  BufferTarget,
  canEncodeAudio,
  Conversion,
  Input,
  MATROSKA,
  MP4,
  Mp4OutputFormat,
  Output,
  QTFF,
  QUALITY_HIGH,
  UrlSource,
  WEBM,
  type VideoSample,
} from 'mediabunny';
import type { CardColours } from '@/core/cards/card';
import { captionAt, type BurntCaption } from '@/core/clips/captions';
import type { Frame } from '@/core/clips/frame';

/** How captions look: the brand's colours, its font, and how large the letters are in pixels. */
export interface CaptionLook extends Pick<CardColours, 'ground' | 'ink'> {
  /** The brand's font; null for Bimlo's own. */
  font: ArrayBuffer | null;
  letters: number;
}

/** A clip to be cut out of a recording. */
export interface CutOrder {
  /** The address of the recording, or the file itself. */
  source: string | Blob;
  inMs: number;
  outMs: number;
  frame: Pick<Frame, 'part' | 'size'>;
  /** Burnt in; empty for none. */
  captions: readonly BurntCaption[];
  look: CaptionLook;
}

/** What a recording may be that is cut. */
const FORMATS = [MP4, QTFF, WEBM, MATROSKA];
/** The font of captions in a thread, which has none of the page's. */
const FONT = 'captions';

/**
 * Cuts a clip out of a recording as an MP4 file: its part of the picture, its captions, its sound. Where the browser writes no AAC,
 * the sound is Opus.
 *
 * @param onShare is told what share of the work is done, 0 to 1
 * @throws Error where the recording cannot be read or written again; with what a person can do about it
 */
export async function cutClip(order: CutOrder, onShare: (share: number) => void): Promise<ArrayBuffer> {
  const { source, inMs, outMs, frame, captions, look } = order;
  // Browsers write videos on pages only that came safely, or from their own machine.
  if (!('VideoEncoder' in globalThis))
    throw new Error('This browser cannot cut videos here. Open Bimlo over HTTPS, or on the machine that it runs on.');
  const input = new Input({
    formats: FORMATS,
    source: typeof source === 'string' ? new UrlSource(source) : new BlobSource(source),
  });
  try {
    const target = new BufferTarget();
    const output = new Output({ format: new Mp4OutputFormat(), target });
    const painter = captions.length > 0 ? await painterOf(frame.size, captions, look) : null;
    const conversion = await Conversion.init({
      input,
      output,
      trim: { start: inMs / 1_000, end: outMs / 1_000 },
      video: {
        crop: frame.part,
        ...frame.size,
        ...{ fit: 'fill', codec: 'avc', quality: QUALITY_HIGH, allowTransformationMetadata: false },
        ...(painter && { process: painter }),
      },
      audio: (await canEncodeAudio('aac')) ? {} : { codec: 'opus' },
      showWarnings: false,
    });
    if (!conversion.isValid || !conversion.utilizedTracks.some((track) => track.isVideoTrack()))
      throw new Error('This browser cannot read or write the pictures of this recording. Save it as an MP4 first.');
    const lost = conversion.discardedTracks.some(({ track }) => track.isAudioTrack());
    if (lost) throw new Error('This browser cannot read the sound of this recording. Save it as an MP4 first.');
    conversion.onProgress = onShare;
    await conversion.execute();
    return target.buffer!;
  } finally {
    input.dispose();
  }
}

/** Draws each picture with the caption that stands at its moment. */
async function painterOf(
  { width, height }: { width: number; height: number },
  captions: readonly BurntCaption[],
  look: CaptionLook,
): Promise<(sample: VideoSample) => OffscreenCanvas | VideoSample> {
  const family = await fontOf(look.font);
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d', { alpha: false })!;
  const plates = new Map<BurntCaption, OffscreenCanvas>();
  return (sample) => {
    const caption = captionAt(captions, sample.timestamp * 1_000);
    if (!caption) return sample;
    let plate = plates.get(caption);
    if (!plate) {
      plates.clear();
      plates.set(caption, (plate = plateOf(caption, { width, height }, look, family)));
    }
    sample.draw(context, 0, 0, width, height);
    context.drawImage(plate, 0, 0);
    return canvas;
  };
}

/** The family of the first font that loads: the brand's, Bimlo's own, whatever the browser has. */
async function fontOf(own: ArrayBuffer | null): Promise<string> {
  const fonts = (globalThis as unknown as { fonts?: FontFaceSet }).fonts ?? document.fonts;
  for (const source of [own, OWN_FONT]) {
    if (source === null) continue;
    const face = await new FontFace(FONT, source, { weight: '100 900' }).load().catch(() => null);
    if (!face) continue;
    fonts.add(face);
    return `${FONT}, sans-serif`;
  }
  return 'sans-serif';
}

const OWN_FONT = `url(${
  new URL('@fontsource-variable/hanken-grotesk/files/hanken-grotesk-latin-wght-normal.woff2', import.meta.url).href
})`;

/** A caption on plates of the brand's colour, a line each, above the lower edge. */
function plateOf(
  { lines }: BurntCaption,
  { width, height }: { width: number; height: number },
  { ground, ink, letters }: CaptionLook,
  family: string,
): OffscreenCanvas {
  const plate = new OffscreenCanvas(width, height);
  const context = plate.getContext('2d')!;
  context.textAlign = 'center';
  context.textBaseline = 'middle';
  const [line, padding] = [Math.round(letters * 1.5), Math.round(letters * 0.45)];
  const bottom = Math.round(height * 0.88);
  lines.forEach((text, at) => {
    context.font = `600 ${letters}px ${family}`;
    const room = width * 0.94 - 2 * padding;
    const wide = context.measureText(text).width;
    if (wide > room) context.font = `600 ${Math.floor((letters * room) / wide)}px ${family}`;
    const own = Math.min(wide, room) + 2 * padding;
    const middle = bottom - (lines.length - at - 0.5) * line;
    context.fillStyle = ground;
    context.fillRect((width - own) / 2, middle - line / 2, own, line);
    context.fillStyle = ink;
    context.fillText(text, width / 2, middle);
  });
  return plate;
}
