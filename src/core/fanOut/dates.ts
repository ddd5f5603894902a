import type { Opening } from '../rhythm/openings';
import type { Format } from '../rulesheets/types';
import { addDays, daysBetween } from '../time/days';
import type { LocalDate, LocalTime } from '../time/plan';

/** A post that wants a date. */
export interface UndatedPost {
  key: string;
  row: number;
  number: number;
  channelId: string;
  format: Format;
  /** Days after the anchor from which it may be published. */
  offset: number;
  /** Days from another post of its row, at least. */
  gap: number;
  pillarId: string | null;
}

/** Where a post of a fan-out goes. */
export interface FanOutDate {
  /** Null for undated: there is no opening within a year. */
  date: LocalDate | null;
  /** Null on a channel without a rhythm. */
  time: LocalTime | null;
  pillarId: string | null;
  /** A needed step of it has too little time. */
  isSqueezed: boolean;
}

/**
 * What dates depend on.
 *
 * @internal
 */
export interface DateGround {
  /** The day that offsets count from. */
  anchor: LocalDate;
  today: LocalDate;
  /** Unfilled openings after today, of a year and the longest offset from the anchor on. */
  openings: readonly Opening[];
  /** Channels that have a rhythm. */
  rhythmic: ReadonlySet<string>;
  /** Days on which the piece is published already, by channel. */
  takenDays: ReadonlyMap<string, ReadonlySet<LocalDate>>;
  /** Days of posts of a row that were made before, by row; absent for none. */
  rowDays?: ReadonlyMap<number, readonly LocalDate[]>;
  /** Whether a needed step of a post on that day would have begun before today. */
  isSqueezed: (post: UndatedPost, date: LocalDate) => boolean;
}

/** Days after its earliest in which a post looks for a place with time enough, and days in which it looks at all. */
const NEAR_DAYS = 28;
const FAR_DAYS = 365;

/**
 * Dates the posts of a fan-out. In the order of offset, row and number each takes the earliest fitting unfilled opening within 28
 * days whose needed steps have time; else the earliest in those days, with too little time; else the next within a year; else none.
 * An opening fits by its channel and format; one of another pillar only where no other does. Posts of one row lie their gap apart,
 * and one piece is never twice a day on one channel. On a channel without a rhythm it is the first free day, without a time.
 *
 * @returns the dates by key
 */
export function dateFanOut(posts: readonly UndatedPost[], ground: DateGround): Map<string, FanOutDate> {
  const dates = new Map<string, FanOutDate>();
  const filled = new Set<string>();
  const days = new Map([...ground.takenDays].map(([channelId, taken]) => [channelId, new Set(taken)]));
  const ofRow = new Map<number, readonly LocalDate[]>(ground.rowDays);
  const inOrder = [...posts].sort(
    (one, other) => one.offset - other.offset || one.row - other.row || one.number - other.number,
  );
  for (const post of inOrder) {
    const wanted = addDays(ground.anchor, post.offset);
    const earliest = wanted > ground.today ? wanted : addDays(ground.today, 1);
    const own = days.get(post.channelId) ?? new Set<LocalDate>();
    const isFree = (date: LocalDate) =>
      !own.has(date) && (ofRow.get(post.row) ?? []).every((other) => Math.abs(daysBetween(other, date)) >= post.gap);
    const place = ground.rhythmic.has(post.channelId)
      ? openingFor(post, earliest, isFree, filled, ground)
      : { ...dayFor(post, earliest, isFree, ground) };
    dates.set(post.key, place);
    if (place.date === null) continue;
    own.add(place.date);
    days.set(post.channelId, own);
    ofRow.set(post.row, [...(ofRow.get(post.row) ?? []), place.date]);
  }
  return dates;
}

const UNDATED: FanOutDate = { date: null, time: null, pillarId: null, isSqueezed: false };

function openingFor(
  post: UndatedPost,
  earliest: LocalDate,
  isFree: (date: LocalDate) => boolean,
  filled: Set<string>,
  { openings, isSqueezed }: DateGround,
): FanOutDate {
  const fitting = openings.filter(
    ({ key, channelId, format, date }) =>
      channelId === post.channelId &&
      date >= earliest &&
      (format === null || format === post.format) &&
      !filled.has(key) &&
      isFree(date),
  );
  const isOfPillar = ({ pillarId }: Opening) =>
    post.pillarId === null || pillarId === null || pillarId === post.pillarId;
  const near = fitting.filter(({ date }) => date < addDays(earliest, NEAR_DAYS));
  const inTime = near.filter(({ date }) => !isSqueezed(post, date));
  const far = fitting.filter(({ date }) => date <= addDays(earliest, FAR_DAYS));
  const [own] = [inTime, near, far].flatMap((list) => {
    const best = list.find(isOfPillar) ?? list[0];
    return best ? [best] : [];
  });
  if (!own) return { ...UNDATED, pillarId: post.pillarId };
  filled.add(own.key);
  return {
    date: own.date,
    time: own.time,
    pillarId: post.pillarId ?? own.pillarId,
    isSqueezed: isSqueezed(post, own.date),
  };
}

function dayFor(
  post: UndatedPost,
  earliest: LocalDate,
  isFree: (date: LocalDate) => boolean,
  { isSqueezed }: DateGround,
): FanOutDate {
  for (let ahead = 0; ahead <= FAR_DAYS; ahead++) {
    const date = addDays(earliest, ahead);
    if (isFree(date)) return { date, time: null, pillarId: post.pillarId, isSqueezed: isSqueezed(post, date) };
  }
  return { ...UNDATED, pillarId: post.pillarId };
}
