import { PIECE_KINDS, type PieceKind } from '../pieces/kinds';
import { accept, refuse, type Result } from '../refusal';
import { weekdayOf } from '../time/days';
import { readDate, type LocalDate } from '../time/plan';

/** For what an item of the shelf holds. What is absent holds for any. */
export interface Fits {
  kinds?: readonly PieceKind[];
  /** Slugs of rule sheets. */
  networks?: readonly string[];
  /** Days on which its post may be published, 1 for Monday to 7 for Sunday. */
  weekdays?: readonly number[];
  /** The last day on which it holds. */
  until?: LocalDate;
  /** Words, apart by commas, of which one stands in the title of the piece or in the post. */
  about?: string;
}

/** Letters of the words that an item is about. */
const ABOUT_MOST = 200;

/** Checks for what an item holds; what says nothing is left out. */
export function readFits({ kinds = [], networks = [], weekdays = [], until, about = '' }: Fits): Result<Fits> {
  if (!kinds.every((kind) => PIECE_KINDS.includes(kind)))
    return refuse('badKind', 'A piece is of one of the kinds of the list.', 'fits');
  if (!weekdays.every((day) => Number.isInteger(day) && day >= 1 && day <= 7))
    return refuse('badDay', 'A weekday is one of seven.', 'fits');
  if (until !== undefined) {
    const day = readDate(until, 'fits');
    if (!day.ok) return day;
  }
  if (about.length > ABOUT_MOST)
    return refuse('longText', `The words have ${about.length} characters; ${ABOUT_MOST} are kept.`, 'fits');
  const sorted = <V>(values: readonly V[]): V[] => [...new Set(values)].sort();
  return accept({
    ...(kinds.length > 0 && { kinds: sorted(kinds) }),
    ...(networks.length > 0 && { networks: sorted(networks) }),
    ...(weekdays.length > 0 && { weekdays: sorted(weekdays) }),
    ...(until !== undefined && { until }),
    ...(about.trim() !== '' && { about: about.trim().replace(/\s+/g, ' ') }),
  });
}

/** A post that an item may be put into. */
interface FitsPost {
  kind: PieceKind;
  network: string;
  /** Null for undated. */
  date: LocalDate | null;
  /** The title of its piece, and what it says. */
  words: string;
}

/** Whether an item holds on a day. One that asks for days holds for no post without a date. */
export const holdsOn = ({ weekdays, until }: Fits, date: LocalDate | null): boolean =>
  (!weekdays || (date !== null && weekdays.includes(weekdayOf(date)))) &&
  (until === undefined || (date !== null && date <= until));

/** Whether an item holds for a post. */
export function holdsFor({ kinds, networks, about, ...days }: Fits, post: FitsPost): boolean {
  if (kinds && !kinds.includes(post.kind)) return false;
  if (networks && !networks.includes(post.network)) return false;
  if (!holdsOn(days, post.date)) return false;
  const words = post.words.toLowerCase();
  return (
    about === undefined || about.split(',').some((one) => one.trim() !== '' && words.includes(one.trim().toLowerCase()))
  );
}
