import type { Opening } from '../rhythm/openings';
import type { LocalDate } from '../time/plan';
import { byTimeOfDay, type Placed } from './order';

/** What stands in a cell: a post, or an opening that asks to be filled. */
export type CellItem<P> = { kind: 'post'; post: P } | { kind: 'opening'; opening: Opening };

/** A cell of the lanes: what shows in it, and how much more there is. */
export interface LaneCell<P> {
  items: CellItem<P>[];
  /** How many posts are left out for want of room. Openings count as well. */
  hidden: number;
}

/** A key for a channel's day. */
export const cellKey = (channelId: string, date: LocalDate): string => `${channelId} ${date}`;

/**
 * Stacks the posts and unfilled openings of every channel and day in the order of the day; where times are equal, the post
 * comes first. A cell shows at most `room` items; of more, it shows one less and counts the rest, so that the count has
 * its line.
 *
 * @returns cells by `cellKey`; those with nothing in them have no entry
 */
export function layOutLanes<P extends Placed & { channelId: string }>(
  posts: readonly P[],
  openings: readonly Opening[],
  room: number,
): Map<string, LaneCell<P>> {
  const stacks = new Map<string, CellItem<P>[]>();
  const stackOf = (channelId: string, date: LocalDate) => {
    const key = cellKey(channelId, date);
    const stack = stacks.get(key) ?? [];
    stacks.set(key, stack);
    return stack;
  };
  for (const post of posts) if (post.date !== null) stackOf(post.channelId, post.date).push({ kind: 'post', post });
  for (const opening of openings) stackOf(opening.channelId, opening.date).push({ kind: 'opening', opening });
  const cells = new Map<string, LaneCell<P>>();
  for (const [key, stack] of stacks) {
    stack.sort(byPlace);
    const hidden = stack.length > room ? stack.length - room + 1 : 0;
    cells.set(key, { items: hidden > 0 ? stack.slice(0, room - 1) : stack, hidden });
  }
  return cells;
}

/** Order of posts and openings within a day. */
export function byPlace<P extends Placed>(a: CellItem<P>, b: CellItem<P>): number {
  if (a.kind === 'post' && b.kind === 'post') return byTimeOfDay(a.post, b.post);
  const [at, bt] = [timeOfItem(a), timeOfItem(b)];
  if (at !== bt) return at < bt ? -1 : 1;
  if (a.kind !== b.kind) return a.kind === 'post' ? -1 : 1;
  return a.kind === 'opening' && b.kind === 'opening' && a.opening.key > b.opening.key ? 1 : -1;
}

const timeOfItem = <P extends Placed>(item: CellItem<P>): string =>
  item.kind === 'post' ? (item.post.time ?? '99:99') : item.opening.time;
