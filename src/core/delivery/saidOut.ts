import { isWebLink } from '../posts/readiness';
import { accept, refuse, type Result } from '../refusal';
import { dueInstant, type Instant, type LocalDate, type LocalTime, type Zone } from '../time/plan';

/** Where and when a post went out, as a person says it. */
export interface SaidOut {
  /** Empty where it has none: a story, a private profile. */
  address: string;
  /** On the wall of its brand; null for now. */
  at: { date: LocalDate; time: LocalTime } | null;
}

/**
 * Checks what a person says of a post that went out without Bimlo.
 *
 * @returns its address and the instant at which it went out; refused for an address that is none, a time that is none, and one to come
 */
export function readSaidOut(
  { address, at }: SaidOut,
  zone: Zone,
  now: Instant,
): Result<{ address: string; publishedAt: Instant }> {
  const typed = address.trim();
  if (typed !== '' && !isWebLink(typed))
    return refuse(
      'badAddress',
      'Give the address of the published post, beginning with http:// or https://, or say that it has none.',
      'address',
    );
  if (at === null) return accept({ address: typed, publishedAt: now });
  const instant = dueInstant(at.date, at.time, zone);
  if (!instant.ok) return instant;
  if (instant.value > now)
    return refuse('notYet', `It is not ${at.date} ${at.time} yet. Say when it went out, or leave it at now.`, 'time');
  return accept({ address: typed, publishedAt: instant.value });
}
