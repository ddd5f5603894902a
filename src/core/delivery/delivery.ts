import { addMs, msBetween, type Instant } from '../time/plan';
import type { PublishAnswer } from './network';

/**
 * States of the delivery of a scheduled post. `waiting`: for its instant, or for the next try. `sending`: claimed.
 * `held`: waits for a person. `unknown`: its tries are used up and nobody knows whether it is out. `withdrawn`: the post
 * was unscheduled, or scheduled anew with another copy.
 */
export const DELIVERY_STATES = ['waiting', 'sending', 'sent', 'failed', 'held', 'unknown', 'withdrawn'] as const;
export type DeliveryState = (typeof DELIVERY_STATES)[number];

/** Who carries it: Bimlo, or a person where the network takes no automatic posts. */
export type DeliveryMode = 'automatic' | 'byHand';

/** How often Bimlo looks for due posts. */
export const LOOK_EVERY_MS = 2_000;
/** A post this long past its instant is held, however often it was tried: a person must say whether it still goes. */
export const HOLD_AFTER_MS = 30 * 60_000;
/**
 * Waits before the second, third and fourth try.
 *
 * @internal
 */
export const RETRY_DELAYS_MS = [60_000, 5 * 60_000, 15 * 60_000] as const;
/**
 * A wait is made longer by up to this share of itself, so that many failures do not come back in one instant.
 *
 * @internal
 */
export const JITTER_SHARE = 0.2;

/** Waits before a network is asked by itself whether something is out: three times within the hour and a half, then daily for a week. */
const ASK_DELAYS_MS: readonly number[] = [
  5 * 60_000,
  15 * 60_000,
  60 * 60_000,
  ...Array.from({ length: 7 }, () => 24 * 60 * 60_000),
];
/**
 * A network's word that it has nothing under a key counts for good only this long after the call that got no answer:
 * until then that call may still be on its way.
 */
const SETTLED_AFTER_MS = 60_000;

/** A delivery as far as the next step depends on it. */
interface DeliveryFacts {
  /** Since when nobody knows whether the network took it; null where that is known. */
  unsureSince: Instant | null;
  /** Lateness is counted from here. */
  lateFrom: Instant;
}

/** What to do with a delivery that is due. `askThenHold`: if it turns out not to be out, it is too late to send it unasked. */
export type NextStep = 'hold' | 'askFirst' | 'askThenHold' | 'send';

/** Decides about a due delivery. What may be out already is asked about first; what missed its time is held. */
export function nextStep({ unsureSince, lateFrom }: DeliveryFacts, now: Instant): NextStep {
  const isLate = msBetween(lateFrom, now) > HOLD_AFTER_MS;
  if (unsureSince !== null) return isLate ? 'askThenHold' : 'askFirst';
  return isLate ? 'hold' : 'send';
}

/** How a delivery stands after a try. */
interface AfterTry {
  state: 'sent' | 'failed' | 'waiting' | 'unknown';
  unsureSince: Instant | null;
  /** Whether this very try had no answer. */
  isDoubted: boolean;
  nextTryAt: Instant | null;
  askAt: Instant | null;
  /** The network's words, or ours where it said nothing; null when sent. */
  words: string | null;
}

/**
 * How a delivery stands after its try number `attempt` (1 for the first).
 *
 * @param unsureSince since when an earlier try may have got through; null where it is known that none did
 * @param chance from 0 up to 1, draws the jitter
 */
export function afterTry(
  answer: PublishAnswer,
  attempt: number,
  unsureSince: Instant | null,
  now: Instant,
  chance: number,
): AfterTry {
  const isDoubted = answer.kind === 'unknown';
  const known = { unsureSince: null, isDoubted, nextTryAt: null, askAt: null };
  if (answer.kind === 'accepted') return { state: 'sent', ...known, words: null };
  if (answer.kind === 'refused') return { state: 'failed', ...known, words: answer.words };
  const unsure = isDoubted ? now : unsureSince;
  const delay = RETRY_DELAYS_MS[attempt - 1];
  if (delay !== undefined) {
    const waitMs = Math.round(delay * (1 + JITTER_SHARE * chance));
    const nextTryAt = addMs(now, waitMs);
    return { state: 'waiting', unsureSince: unsure, isDoubted, nextTryAt, askAt: null, words: answer.words };
  }
  return {
    state: unsure === null ? 'failed' : 'unknown',
    unsureSince: unsure,
    isDoubted,
    nextTryAt: null,
    askAt: unsure === null ? null : addMs(now, ASK_DELAYS_MS[0]!),
    words: answer.words,
  };
}

/** When a network is asked again, after it was asked so many times in vain; null when it is left to a person. */
export function nextAsk(asks: number, now: Instant): Instant | null {
  const delay = ASK_DELAYS_MS[asks];
  return delay === undefined ? null : addMs(now, delay);
}

/** From when on a network's word that it has nothing is to be believed for good. */
export const settlesAt = (unsureSince: Instant): Instant => addMs(unsureSince, SETTLED_AFTER_MS);

/** Whether a network's word that it has nothing is to be believed for good. */
export const isSettled = (unsureSince: Instant | null, now: Instant): boolean =>
  unsureSince === null || msBetween(unsureSince, now) >= SETTLED_AFTER_MS;

/** A delivery as far as it says whether it may be out. */
type Outcome = { state: DeliveryState; unsure: boolean; attempts: number };

/** Whether a delivery is under way, or is tried again because nobody knows: then its post must not be re-timed, unscheduled or sent anew. */
export const isLeaving = (delivery: Outcome | null): boolean =>
  delivery !== null &&
  (delivery.state === 'sending' || (delivery.state === 'waiting' && delivery.unsure && delivery.attempts > 0));

/** Whether a network may have taken it though nobody was told. */
export const mayBeOut = ({ state, unsure }: Pick<Outcome, 'state' | 'unsure'>): boolean => state !== 'sent' && unsure;
