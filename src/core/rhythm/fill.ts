import { compareText } from '../compareText';
import type { Format } from '../rulesheets/types';
import { minutesOf } from '../time/days';
import type { LocalDate, LocalTime } from '../time/plan';

/** An opening as far as filling it depends on it. */
export interface Place {
  key: string;
  channelId: string;
  date: LocalDate;
  time: LocalTime;
  /** The format asked for; null takes any. */
  format: Format | null;
}

/** A post as far as filling openings depends on it. */
export interface Candidate {
  id: string;
  channelId: string;
  date: LocalDate | null;
  time: LocalTime | null;
  format: Format;
}

/** Now, on the wall of the brand's zone. */
export interface LocalNow {
  date: LocalDate;
  time: LocalTime;
}

/** Which post fills which opening. */
interface Fill {
  /** Post ids by opening key. Openings that are not filled have no entry. */
  filledBy: Map<string, string>;
  /** Dated posts of channels with an opening that day or not, which fill none. */
  extra: Set<string>;
}

/**
 * Pairs openings with posts, each day of each channel for itself. A post may fill an opening of its channel on its date, of
 * its format where one is asked for. Among all pairings the one is taken that has, in this order of weight:
 * 1. the most pairs;
 * 2. the fewest of them with posts that have no time, since those take what the others leave;
 * 3. the least total distance in time, in minutes;
 * 4. the earliest openings and posts, by time and then by key and id, those without a time last;
 * 5. the order of time: of two pairs that could be exchanged at no cost, the earlier post takes the earlier opening.
 *
 * Posts without a date are neither paired nor extra. Of today's openings a post without a time fills only one that is still to come.
 *
 * @param now where it is known, on the wall of the brand's zone
 */
export function fillOpenings(openings: readonly Place[], posts: readonly Candidate[], now?: LocalNow): Fill {
  const fill: Fill = { filledBy: new Map(), extra: new Set() };
  const days = new Map<string, { openings: Place[]; posts: Candidate[] }>();
  const dayOf = (channelId: string, date: LocalDate) => {
    const key = `${channelId} ${date}`;
    const day = days.get(key) ?? { openings: [], posts: [] };
    days.set(key, day);
    return day;
  };
  for (const opening of openings) dayOf(opening.channelId, opening.date).openings.push(opening);
  for (const post of posts) if (post.date !== null) dayOf(post.channelId, post.date).posts.push(post);
  for (const day of days.values()) {
    const paired = pairDay(day.openings, day.posts, now);
    for (const post of day.posts) fill.extra.add(post.id);
    for (const [key, id] of paired) {
      fill.filledBy.set(key, id);
      fill.extra.delete(id);
    }
  }
  return fill;
}

/** What a pair costs, compared part by part from the left. */
type Cost = readonly [untimed: number, minutes: number, squares: number, order: number];

/**
 * Pairs the openings and posts of one channel and day. @returns post ids by opening key
 *
 * @internal
 */
export function pairDay(
  someOpenings: readonly Place[],
  somePosts: readonly Candidate[],
  now?: LocalNow,
): Map<string, string> {
  const openings = [...someOpenings].sort((a, b) => compareText(a.time, b.time) || compareText(a.key, b.key));
  const posts = [...somePosts].sort((a, b) => compareText(a.time ?? '99', b.time ?? '99') || compareText(a.id, b.id));
  const costs = openings.map((opening, place) =>
    posts.map((post, index): Cost | null => {
      if (opening.format !== null && opening.format !== post.format) return null;
      const isOver = now !== undefined && opening.date === now.date && opening.time < now.time;
      if (post.time === null && isOver) return null;
      // Each step to a later opening or post outweighs what their products differ by.
      const order = 2 * (place * posts.length + index * openings.length) - (place + 1) * (index + 1);
      if (post.time === null) return [1, 0, 0, order];
      const minutes = Math.abs(minutesOf(opening.time) - minutesOf(post.time));
      return [0, minutes, minutes * minutes, order];
    }),
  );
  const pairs = new Map<string, string>();
  for (const [place, index] of cheapestMatching(costs, posts.length)) pairs.set(openings[place]!.key, posts[index]!.id);
  return pairs;
}

/**
 * The cheapest of the largest matchings, by successive shortest augmenting paths (Ford and Fulkerson; Bellman–Ford for
 * the paths, since reversed edges have negative costs). Costs only need to add up and compare, so that tuples will do.
 * A path that pairs one place more never makes fewer pairs elsewhere, so the last matching is a largest one.
 *
 * @param costs by place and candidate; null where they may not be paired
 * @returns candidate by place
 */
function cheapestMatching(costs: readonly (readonly (Cost | null)[])[], candidates: number): Map<number, number> {
  const candidateOf = new Map<number, number>();
  const placeOf = new Map<number, number>();
  for (;;) {
    // Shortest ways from any unpaired place to each candidate, through pairs that would be exchanged.
    const distance: (Cost | null)[] = new Array<Cost | null>(candidates).fill(null);
    const cameFrom: number[] = new Array<number>(candidates).fill(-1);
    const reach = (place: number, start: Cost): boolean => {
      let changed = false;
      costs[place]!.forEach((cost, candidate) => {
        if (cost === null || candidateOf.get(place) === candidate) return;
        const total = plus(start, cost);
        if (distance[candidate] && !isLess(total, distance[candidate])) return;
        distance[candidate] = total;
        cameFrom[candidate] = place;
        changed = true;
      });
      return changed;
    };
    costs.forEach((_row, place) => {
      if (!candidateOf.has(place)) reach(place, ZERO);
    });
    for (let changed = true; changed;) {
      changed = false;
      for (const [place, candidate] of candidateOf) {
        const here = distance[candidate];
        if (here && reach(place, minus(here, costs[place]![candidate]!))) changed = true;
      }
    }
    let end = -1;
    distance.forEach((total, candidate) => {
      if (total && !placeOf.has(candidate) && (end < 0 || isLess(total, distance[end]!))) end = candidate;
    });
    if (end < 0) return candidateOf;
    for (let candidate = end; ;) {
      const place = cameFrom[candidate]!;
      const before = candidateOf.get(place);
      candidateOf.set(place, candidate);
      placeOf.set(candidate, place);
      if (before === undefined) break;
      candidate = before;
    }
  }
}

const ZERO: Cost = [0, 0, 0, 0];
const plus = (a: Cost, b: Cost): Cost => [a[0] + b[0], a[1] + b[1], a[2] + b[2], a[3] + b[3]];
const minus = (a: Cost, b: Cost): Cost => [a[0] - b[0], a[1] - b[1], a[2] - b[2], a[3] - b[3]];

function isLess(a: Cost, b: Cost): boolean {
  for (let part = 0; part < 4; part++) if (a[part] !== b[part]) return a[part]! < b[part]!;
  return false;
}
