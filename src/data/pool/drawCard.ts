import type { Card } from '@/core/cards/card';
import type { CardFont } from '@/core/cards/compose';
import { refuse, type Result } from '@/core/refusal';
import { inPool, TooMuchWorkError } from './pool';

/** Fonts of a brand for its cards, by their content hash. */
export type CardFonts = Partial<Record<CardFont, { sha256: string; bytes: Uint8Array }>>;

/** How long a card may take to be drawn, in milliseconds. */
const LIMIT_MS = 20_000;

/** Draws a card on a thread of the pool. */
export async function drawCardInPool(
  card: Card,
  picture: Uint8Array | null,
  fonts: CardFonts = {},
): Promise<Result<Uint8Array>> {
  try {
    return await inPool<Result<Uint8Array>>('card', { card, picture, fonts }, LIMIT_MS);
  } catch (error) {
    if (!(error instanceof TooMuchWorkError)) throw error;
    return refuse('tooMuchWork', 'The picture beneath is too large to draw on. Choose a smaller one.', 'picture');
  }
}

/** Whether something is a font that cards can be set in, tried on a thread of the pool. */
export async function isFontInPool(bytes: Uint8Array): Promise<boolean> {
  try {
    return await inPool<boolean>('font', { bytes }, LIMIT_MS);
  } catch (error) {
    if (!(error instanceof TooMuchWorkError)) throw error;
    return false;
  }
}
