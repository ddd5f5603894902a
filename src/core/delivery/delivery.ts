import { addMs, msBetween, type Instant } from '../time/plan';
import type { PublishAnswer } from './network';

/**
 * States of the delivery of a scheduled post. `waiting`: for its instant, or for the next try. `sending`: claimed.
 * `held`: waits for a person. `withdrawn`: the post was unscheduled, or scheduled anew with another copy.
 */
export const DELIVERY_STATES = ['waiting', 'sending', 'sent', 'failed', 'held', 'withdrawn'] as const;
export type DeliveryState = (typeof DELIVERY_STATES)[number];

/** Who carries it: Bimlo, or a person where the network takes no automatic posts. */
export type DeliveryMode = 'automatic' | 'byHand';

/** How often Bimlo looks for due posts. */
export const LOOK_EVERY_MS = 2_000;
/** A post this long past its instant that was never tried is held: Bimlo was not running, and a person must say. */
export const HOLD_AFTER_MS = 30 * 60_000;
/** How long a claim lasts; longer than any single call to a network may take. */
export const LEASE_MS = 90_000;
/** Waits before the second, third and fourth try. */
export const RETRY_DELAYS_MS = [60_000, 5 * 60_000, 15 * 60_000] as const;
/** A wait is made longer by up to this share of itself, so that many failures do not come back in one instant. */
export const JITTER_SHARE = 0.2;

/** A delivery as far as the next step depends on it. */
export interface DeliveryFacts {
  /** Tries begun so far. */
  attempts: number;
  /** A try ended without an answer, so the network may have taken the post. */
  unsure: boolean;
  /** When it was to be tried. */
  nextTryAt: Instant;
}

/** What to do with a delivery that is due. */
export type NextStep = 'hold' | 'askFirst' | 'send';

/** Decides about a due delivery. What may be out already is asked about first; what was missed is held. */
export function nextStep(delivery: DeliveryFacts, now: Instant): NextStep {
  if (delivery.unsure) return 'askFirst';
  if (delivery.attempts === 0 && msBetween(delivery.nextTryAt, now) > HOLD_AFTER_MS) return 'hold';
  return 'send';
}

/** How a delivery stands after a try. */
export interface AfterTry {
  state: 'sent' | 'failed' | 'waiting';
  unsure: boolean;
  nextTryAt: Instant | null;
  address: string | null;
  /** The network's words, or ours where it said nothing; null when sent. */
  words: string | null;
}

/**
 * How a delivery stands after its try number `attempt` (1 for the first).
 *
 * @param chance from 0 up to 1, draws the jitter
 */
export function afterTry(answer: PublishAnswer, attempt: number, now: Instant, chance: number): AfterTry {
  if (answer.kind === 'accepted')
    return { state: 'sent', unsure: false, nextTryAt: null, address: answer.address, words: null };
  if (answer.kind === 'refused')
    return { state: 'failed', unsure: false, nextTryAt: null, address: null, words: answer.words };
  const unsure = answer.kind === 'unknown';
  const delay = RETRY_DELAYS_MS[attempt - 1];
  if (delay === undefined) return { state: 'failed', unsure, nextTryAt: null, address: null, words: answer.words };
  const waitMs = Math.round(delay * (1 + JITTER_SHARE * chance));
  return { state: 'waiting', unsure, nextTryAt: addMs(now, waitMs), address: null, words: answer.words };
}

/** Whether a delivery is under way, or may be: then its post must not be re-timed, unscheduled or sent anew. */
export const isLeaving = (delivery: { state: DeliveryState; unsure: boolean } | null): boolean =>
  delivery !== null && (delivery.state === 'sending' || (delivery.state === 'waiting' && delivery.unsure));
