import type { LocalDate } from '../time/plan';
import { fillOpenings, type Candidate } from './fill';
import type { Opening } from './openings';

/** What the calendar shows, as far as openings depend on it. */
export interface OpeningGround {
  openings: readonly Opening[];
  /** Posts as they show, moved since or not. */
  slips: readonly Candidate[];
  /** All posts that may fill openings, when a filter hides some; null when the slips tell all. */
  planned: readonly Candidate[] | null;
  /** Channels that have a rhythm. */
  rhythmic: readonly string[];
}

/**
 * The openings that are still to be filled, of the channels that show (all where none is named); and the posts to come of
 * channels with a rhythm that fill none.
 */
export function openingsLeft(
  { openings, slips, planned, rhythmic }: OpeningGround,
  channels: ReadonlySet<string>,
  today: LocalDate,
): { openings: readonly Opening[]; extra: ReadonlySet<string> } {
  if (openings.length === 0) return { openings: [], extra: new Set() };
  const moved = new Set(slips.map(({ id }) => id));
  const candidates = planned ? [...planned.filter(({ id }) => !moved.has(id)), ...slips] : slips;
  const fill = fillOpenings(openings, candidates);
  const withRhythm = new Set(rhythmic);
  const isExtra = ({ id, date, channelId }: Candidate) =>
    date !== null && date > today && fill.extra.has(id) && withRhythm.has(channelId);
  return {
    openings: openings.filter(
      ({ key, channelId }) => !fill.filledBy.has(key) && (channels.size === 0 || channels.has(channelId)),
    ),
    extra: new Set(slips.filter(isExtra).map(({ id }) => id)),
  };
}
