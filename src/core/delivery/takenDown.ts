import { accept, refuse, type Result } from '../refusal';
import type { Instant } from '../time/plan';

/** That a published post was taken down, or is to be. */
export interface TakenDown {
  reason: string;
  /** Its network took it down when it was asked to, or a person does. */
  way: 'network' | 'byHand';
  askedAt: Instant;
  /** Null while a person has still to do it. */
  doneAt: Instant | null;
}

const REASON_LIMIT = 500;

/** Checks why a post is taken down. Refused: no reason, one of more than 500 characters. */
export function readTakeDownReason(text: string): Result<string> {
  const reason = text.replace(/\s+/gu, ' ').trim();
  if (reason === '') return refuse('noReason', 'Why is it taken down? A few words are enough.', 'reason');
  return reason.length <= REASON_LIMIT
    ? accept(reason)
    : refuse('longReason', `A reason has at most ${REASON_LIMIT} characters, this has ${reason.length}.`, 'reason');
}
