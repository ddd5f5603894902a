import { daysOf, type Horizon, type Reach } from '@/core/rhythm/horizon';
import Link from 'next/link';
import type { LocalDate } from '@/core/time/plan';
import { dayMonth } from './format';
import { Only } from './shell';

/**
 * Says how far a channel is filled: “filled until 4 Dec”, “opening today”, “none until 4 Mar”, “no rhythm”.
 *
 * @internal
 */
export function reachWords(reach: Reach, today: LocalDate): string {
  if (reach.kind === 'noRhythm') return 'no rhythm';
  if (reach.kind === 'noneUntil') return `none until ${dayMonth(reach.date)}`;
  if (reach.kind === 'gapToday') return 'opening today';
  return reach.to === today ? 'filled until today' : `filled until ${dayMonth(reach.to)}`;
}

/** A channel's horizon against its aim: solid for ready, hatched for planned, then bare, with the date it reaches. */
export function HorizonBar({
  horizon,
  today,
  short = false,
  rhythmAt,
}: {
  horizon: Horizon | undefined;
  today: LocalDate;
  /** The date alone, for narrow places. */
  short?: boolean;
  /** Where a channel without a rhythm gets one; absent where that is not offered. */
  rhythmAt?: string;
}) {
  if (!horizon) return null;
  const { planned, solid, aimDays } = horizon;
  const share = (reach: Reach) => Math.min(100, ((daysOf(reach) ?? 0) / aimDays) * 100);
  const days = daysOf(planned);
  const words = reachWords(planned, today);
  const isShort = days !== null && days < aimDays / 2;
  return (
    <span className="horizon" title={`Planned: ${words}. Ready: ${reachWords(solid, today)}. Target: ${aimDays} days.`}>
      {days !== null && (
        <span className="horizon-bar" aria-hidden="true">
          <i className="is-planned" style={{ width: `${share(planned)}%` }} />
          <i className="is-solid" style={{ width: `${share(solid)}%` }} />
        </span>
      )}
      <span className={isShort ? 'wrong' : 'soft'}>{short ? words.replace('filled until ', '') : words}</span>
      {planned.kind === 'noRhythm' && rhythmAt && (
        <Only deed="setRhythm">
          <Link href={rhythmAt} prefetch={false}>
            Set one
          </Link>
        </Only>
      )}
      <span className="visually-hidden">
        Solid: {reachWords(solid, today)}. Aim: {aimDays} days.
      </span>
    </span>
  );
}
