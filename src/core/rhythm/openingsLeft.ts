import { groupBy } from '../group';
import { fillOpenings, type Candidate, type LocalNow } from './fill';
import type { Opening } from './openings';

/** What the calendar shows, as far as openings depend on it. */
interface OpeningGround {
  /** Openings of the days that show, from today on; those of today that are over count for what they are filled by. */
  openings: readonly Opening[];
  /** Posts as they show, moved since or not. */
  slips: readonly Candidate[];
  /** All posts that may fill openings, when a filter hides some; null when the slips tell all. */
  planned: readonly Candidate[] | null;
  /** Now on the wall of each channel that has a rhythm, by channel. */
  nowOf: Readonly<Record<string, LocalNow>>;
}

/**
 * The openings that are still to be filled, of the channels that show (all where none is named); and the posts to come of
 * channels with a rhythm that fill none.
 */
export function openingsLeft(
  { openings, slips, planned, nowOf }: OpeningGround,
  channels: ReadonlySet<string>,
): { openings: readonly Opening[]; extra: ReadonlySet<string> } {
  if (openings.length === 0) return { openings: [], extra: new Set() };
  const moved = new Set(slips.map(({ id }) => id));
  const candidates = planned ? [...planned.filter(({ id }) => !moved.has(id)), ...slips] : slips;
  const openingsOf = groupBy(openings, ({ channelId }) => channelId);
  const candidatesOf = groupBy(candidates, ({ channelId }) => channelId);
  const [filled, extra] = [new Set<string>(), new Set<string>()];
  for (const [channelId, now] of Object.entries(nowOf)) {
    const own = candidatesOf.get(channelId) ?? [];
    const fill = fillOpenings(openingsOf.get(channelId) ?? [], own, now);
    for (const key of fill.filledBy.keys()) filled.add(key);
    for (const { id, date } of own) if (date !== null && date > now.date && fill.extra.has(id)) extra.add(id);
  }
  const isLeft = ({ key, channelId, date, time }: Opening) => {
    const now = nowOf[channelId]!;
    return (
      !filled.has(key) && (date > now.date || time >= now.time) && (channels.size === 0 || channels.has(channelId))
    );
  };
  return { openings: openings.filter(isLeft), extra: new Set(slips.flatMap(({ id }) => (extra.has(id) ? [id] : []))) };
}
