import type { Card } from '@/core/cards/card';
import { refuse, type Result } from '@/core/refusal';
import { NativeFailedError, natively } from '../native/children';
import type { CardFonts } from './cardFonts';

/** How long a card may take to be drawn, and a font to be tried, in milliseconds. */
const LIMIT_MS = 10_000;

/** Draws a card in a process of its own. @param picture where the pixels of the picture beneath lie */
export async function drawCardApart(
  card: Card,
  picture: string | null,
  fonts: CardFonts = {},
): Promise<Result<Uint8Array>> {
  try {
    return await natively('drawn', 'card', { card, picture, fonts }, LIMIT_MS);
  } catch (error) {
    if (!(error instanceof NativeFailedError)) throw error;
    return picture === null || error.kind === 'busy'
      ? refuse('tooMuchWork', 'The picture could not be drawn just now. Try again in a moment.')
      : refuse('tooMuchWork', 'The picture beneath takes too long to be drawn on. Choose a smaller one.', 'picture');
  }
}

/** Whether something is a font that cards can be set in, tried in a process of its own. */
export async function isFontTried(bytes: Uint8Array): Promise<boolean> {
  try {
    return await natively('takenIn', 'font', { bytes }, LIMIT_MS);
  } catch (error) {
    if (!(error instanceof NativeFailedError)) throw error;
    return false;
  }
}
