import { daysBetween } from '../time/days';
import type { Change } from './change';
import type { DropPlace } from './drop';
import type { Slip } from './slip';

/**
 * What dropping posts at a place changes, and on which of them; null when nothing.
 *
 * Of several dated posts, the first of which was taken hold of, all move by as many days as it does: they keep their
 * channels and times. On the full hour of a day, a post with a time keeps its minutes where `keepsMinutes`.
 */
export function changeOfDrop(
  slips: readonly [Slip, ...Slip[]],
  place: DropPlace,
  keepsMinutes: boolean,
): { slips: readonly Slip[]; change: Change } | null {
  const on = (changed: readonly Slip[], change: Change) => (changed.length > 0 ? { slips: changed, change } : null);
  const [first] = slips;
  if (place.kind === 'tray')
    return on(
      slips.filter(({ date }) => date !== null),
      { kind: 'place', date: null },
    );
  if (place.kind === 'stage') {
    const { stage } = place;
    if (stage === 'published' || stage === 'setAside') return null;
    return on(
      slips.filter((slip) => slip.stage !== stage),
      { kind: 'stage', stage },
    );
  }
  if (slips.length > 1 && first.date !== null) {
    const days = daysBetween(first.date, place.date);
    return days === 0 ? null : on(slips, { kind: 'shift', days });
  }
  const isThere =
    place.date === first.date &&
    (place.channelId === null || place.channelId === first.channelId) &&
    (place.time === null || place.time === first.time);
  if (isThere) return null;
  const isHour = place.time !== null && place.time.endsWith(':00') && place.format === null;
  const time = keepsMinutes && isHour && first.time ? `${place.time!.slice(0, 2)}:${first.time.slice(3)}` : place.time;
  return on(slips, {
    kind: 'place',
    date: place.date,
    ...(time ? { time } : {}),
    ...(place.channelId ? { channelId: place.channelId } : {}),
    ...(place.format ? { format: place.format } : {}),
  });
}
