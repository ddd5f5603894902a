/** What the processes for native work can do: decode and draw people's files. Loaded in each by `program.mjs`. */
import { createHash } from 'node:crypto';
import { readFile, writeFile } from 'node:fs/promises';
import type { Card } from '@/core/cards/card';
import type { Recipe } from '@/core/media/fit';
import type { Result } from '@/core/refusal';
import type { CardFonts } from '../cards/cardFonts';
import { bitmapOf, decode, type PictureDecoded } from './decode';
import { readRecording, type RecordingRead } from './recording';
import { render } from './render';

/** A picture as it leaves, in a file. */
export interface RenderedFile {
  bytes: number;
  width: number;
  height: number;
  /** SHA-256 of its bytes, hex. */
  sha256: string;
}

export const NATIVE_DEEDS = {
  /** Size and thumbnail of a picture; null when it cannot be decoded to its end. */
  decode: ({ path }: { path: string }): Promise<PictureDecoded | null> => decode(path),

  /** Makes a bitmap of a drawing, into a file; false when it cannot be drawn. */
  bitmap: async ({ path, to }: { path: string; to: string }): Promise<boolean> => {
    const bytes = await bitmapOf(await readFile(path));
    if (bytes) await writeFile(to, bytes);
    return bytes !== null;
  },

  /** Size and length of a video or sound; null when it cannot be read, or is cut off. */
  recording: ({ path, takesSound }: { path: string; takesSound: boolean }): Promise<RecordingRead | null> =>
    readRecording(path, takesSound),

  /** Makes the picture that leaves out of a stored one, into a file where one is named. */
  render: async (given: { path: string; mime: string; recipe: Recipe; to: string | null }): Promise<RenderedFile> => {
    const { bytes, width, height } = await render(await readFile(given.path), given.mime, given.recipe);
    if (given.to !== null) await writeFile(given.to, bytes);
    return { bytes: bytes.length, width, height, sha256: createHash('sha256').update(bytes).digest('hex') };
  },

  /** Draws a card. Its package is loaded by the process that first draws one. */
  card: async (given: { card: Card; picture: string | null; fonts: CardFonts }): Promise<Result<Uint8Array>> => {
    const picture = given.picture === null ? null : await readFile(given.picture);
    return (await import('../cards/drawCard')).drawCard(given.card, picture, given.fonts);
  },

  /** Whether something is a font that cards can be set in. */
  font: async ({ bytes }: { bytes: Uint8Array }): Promise<boolean> => (await import('../cards/drawCard')).isFont(bytes),
};

export type NativeDeeds = typeof NATIVE_DEEDS;
