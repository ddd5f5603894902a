import type { Block } from '../posts/readiness';
import type { Instant } from '../time/plan';
import type { Stage } from '../stages/stages';
import type { DeliveryMode, DeliveryState } from './delivery';

/**
 * A line of the timetable as far as its fitness depends on it.
 *
 * @internal
 */
export interface DepartureFacts {
  stage: Stage;
  mode: DeliveryMode;
  state: DeliveryState | null;
  unsure: boolean;
  /** It waits, since its folder was restored, until somebody releases it. */
  awaitsRelease: boolean;
  /** All of its brand is on hold. */
  isBrandHeld: boolean;
  attempts: number;
  dueAt: Instant | null;
  blocks: readonly Block[];
}

/** How a departure stands, for one look. */
export type Fitness =
  | 'out'
  | 'fit'
  | 'sending'
  | 'retrying'
  | 'failed'
  | 'held'
  /** Its tries are used up, and nobody knows whether it is out. */
  | 'unknown'
  /** It waits, since its folder was restored, until somebody releases it. */
  | 'awaitsRelease'
  /** It waits, as all of its brand does, until somebody releases that. */
  | 'heldWithAll'
  | 'handOver'
  | 'handOverToCome'
  /** Dated but not scheduled: it will not leave. */
  | 'notScheduled'
  /** Dated, not scheduled, and the network would refuse it as it stands. */
  | 'notFit';

/** How a departure stands at `now`. */
export function fitnessOf(facts: DepartureFacts, now: Instant): Fitness {
  if (facts.stage === 'published') return 'out';
  if (facts.stage !== 'scheduled' || facts.state === null) return facts.blocks.length > 0 ? 'notFit' : 'notScheduled';
  if (facts.awaitsRelease) return 'awaitsRelease';
  if (facts.state === 'sending') return 'sending';
  if (facts.state === 'failed') return 'failed';
  if (facts.state === 'held') return 'held';
  if (facts.state === 'unknown') return 'unknown';
  if (facts.isBrandHeld) return 'heldWithAll';
  if (facts.mode === 'byHand') return facts.dueAt !== null && facts.dueAt <= now ? 'handOver' : 'handOverToCome';
  return facts.attempts > 0 ? 'retrying' : 'fit';
}
