import type { Parcel } from '../delivery/network';
import { differsFromParcel, type Compared } from '../delivery/parcel';
import type { Instant } from '../time/plan';

/** Somebody’s yes to a post as it stood. */
export interface SignOff {
  /** Who said it. */
  by: string;
  at: Instant;
  /** What was looked at: it covers no other words or pictures. */
  copy: Parcel;
}

/**
 * How a post stands with sign-off. `notAsked`: its brand does not ask for it. `given`: what it holds now was signed off.
 * `outdated`: something was signed off, and its words or pictures changed since.
 */
export type SignOffState = 'notAsked' | 'missing' | 'given' | 'outdated';

/** How a post stands with sign-off. Another day, owner or working title needs no new one. */
export function signOffState(isAsked: boolean, signOff: SignOff | null, post: Compared): SignOffState {
  if (!isAsked) return 'notAsked';
  if (signOff === null) return 'missing';
  return differsFromParcel(post, signOff.copy) ? 'outdated' : 'given';
}
