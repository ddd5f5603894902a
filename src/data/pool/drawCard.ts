import type { Card } from '@/core/cards/card';
import { refuse, type Result } from '@/core/refusal';
import { inPool, TooMuchWorkError } from './pool';

/** How long a card may take to be drawn, in milliseconds. */
const LIMIT_MS = 20_000;

/** Draws a card on a thread of the pool. */
export async function drawCardInPool(card: Card, picture: Uint8Array | null): Promise<Result<Uint8Array>> {
  try {
    return await inPool<Result<Uint8Array>>('card', { card, picture }, LIMIT_MS);
  } catch (error) {
    if (!(error instanceof TooMuchWorkError)) throw error;
    return refuse('tooMuchWork', 'The picture beneath is too large to draw on. Choose a smaller one.', 'picture');
  }
}
