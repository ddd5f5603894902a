import type { Format } from '../rulesheets/types';
import { STAGE_LABELS, type Stage } from '../stages/stages';
import type { ChosenStage } from '../stages/moves';
import { addDays } from '../time/days';
import type { LocalDate, LocalTime } from '../time/plan';

/** What can be done to one or many posts on the calendar. What is absent stays as it is. */
export type Change =
  /** A place in the calendar; without a date it goes to the tray. Another channel has its own rules: what does not fit is told. */
  | { kind: 'place'; date: LocalDate | null; time?: LocalTime | null; channelId?: string; format?: Format }
  /** Each to a place of its own. */
  | { kind: 'carry'; places: readonly { id: string; date: LocalDate; time: LocalTime | null }[] }
  /** So many days later, or earlier when negative. */
  | { kind: 'shift'; days: number }
  | { kind: 'time'; time: LocalTime | null }
  | { kind: 'stage'; stage: ChosenStage | 'scheduled' }
  | { kind: 'title'; title: string }
  | { kind: 'owner'; ownerId: string }
  | { kind: 'pillar'; pillarId: string | null }
  | { kind: 'campaign'; campaignId: string | null }
  | { kind: 'setAside'; reason: string }
  /** A copy, drafting: on the same channel so many days later, or on each of these channels. */
  | { kind: 'copy'; days: number; channelIds: string[] | null };

/** Posts that can be changed at once. */
export const CHANGE_LIMIT = 500;
/** Days a shift may span. */
export const SHIFT_LIMIT = 730;

/** A title as it is named. */
export const quoted = (title: string): string => `“${title}”`;

const posts = (which: number | string): string =>
  typeof which === 'string' ? quoted(which) : which === 1 ? '1 post' : `${which} posts`;
const days = (count: number): string => (Math.abs(count) === 1 ? '1 day' : `${Math.abs(count)} days`);

/**
 * Says what a change did to how many, or to the one of that title.
 *
 * @example
 * changeWords({ kind: 'shift', days: -7 }, 3) // 'Moved 3 posts 7 days earlier'
 * changeWords({ kind: 'copy', days: 7, channelIds: null }, 1) // 'Made 1 post as a copy, 7 days later'
 * changeWords({ kind: 'place', date: null }, 'Rings') // 'Moved “Rings” to the tray'
 */
export function changeWords(change: Change, which: number | string): string {
  switch (change.kind) {
    case 'place':
      return change.date === null ? `Moved ${posts(which)} to the tray` : `Moved ${posts(which)}`;
    case 'carry':
      return `Carried ${posts(which)} over`;
    case 'shift':
      return `Moved ${posts(which)} ${days(change.days)} ${change.days < 0 ? 'earlier' : 'later'}`;
    case 'time':
      return change.time === null ? `Removed the time from ${posts(which)}` : `Set ${posts(which)} to ${change.time}`;
    case 'stage':
      return `Moved ${posts(which)} to ${STAGE_LABELS[change.stage]}`;
    case 'title':
      return `Renamed ${posts(which)}`;
    case 'owner':
      return `Gave ${posts(which)} another owner`;
    case 'pillar':
      return change.pillarId === null ? `Removed the pillar from ${posts(which)}` : `Gave ${posts(which)} a pillar`;
    case 'campaign':
      return change.campaignId === null
        ? `Removed ${posts(which)} from the campaign`
        : `Put ${posts(which)} into the campaign`;
    case 'setAside':
      return `Set ${posts(which)} aside`;
    case 'copy':
      return change.channelIds === null
        ? `Made ${posts(which)} as a copy, ${days(change.days)} later`
        : `Made ${posts(which)} for other channels`;
  }
}

/** A slip as far as a change may touch it. */
interface Changeable {
  channelId: string;
  date: LocalDate | null;
  time: LocalTime | null;
  stage: Stage;
  title: string;
  ownerId: string;
  pillarId: string | null;
  campaignId: string | null;
}

/**
 * What a post will look like once a change is saved, to be shown at once. What only the server can tell (a format, a
 * block, a refusal) is left as it is, as is what goes to a place of its own. A copy leaves the original alone.
 */
export function applyChange<S extends Changeable>(slip: S, change: Change): S {
  switch (change.kind) {
    case 'place':
      return {
        ...slip,
        date: change.date,
        time: change.date === null ? null : change.time === undefined ? slip.time : change.time,
        channelId: change.channelId ?? slip.channelId,
      };
    case 'shift':
      return slip.date === null ? slip : { ...slip, date: addDays(slip.date, change.days) };
    case 'time':
      return slip.date === null ? slip : { ...slip, time: change.time };
    case 'stage':
      return { ...slip, stage: change.stage };
    case 'title':
      return { ...slip, title: change.title };
    case 'owner':
      return { ...slip, ownerId: change.ownerId };
    case 'pillar':
      return { ...slip, pillarId: change.pillarId };
    case 'campaign':
      return { ...slip, campaignId: change.campaignId };
    case 'setAside':
      return { ...slip, stage: 'setAside' };
    case 'carry':
    case 'copy':
      return slip;
  }
}
