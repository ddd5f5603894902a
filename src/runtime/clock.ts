import type { Clock } from '@/core/clock';
import type { Instant } from '@/core/time/plan';

/** A clock that stands still and is moved by hand. */
interface MovableClock extends Clock {
  moveTo(instant: Instant): void;
}

/** The clock of this process: the real one, or with `BIMLO_NOW` one that stands still there. */
export function clockFrom(frozenAt: string | undefined): Clock | MovableClock {
  if (!frozenAt) return { now: () => new Date().toISOString() };
  const at = Date.parse(frozenAt);
  if (Number.isNaN(at)) throw new Error(`BIMLO_NOW is no instant: “${frozenAt}”. Write it like 2026-11-23T11:42:00Z.`);
  let now = new Date(at).toISOString();
  return { now: () => now, moveTo: (instant) => void (now = instant) };
}

/** Whether a clock can be moved by hand. */
export const isMovable = (clock: Clock): clock is MovableClock => 'moveTo' in clock;
