import { groupBy } from '../group';
import type { Format } from '../rulesheets/types';
import type { Instant } from '../time/plan';

/** Whether a post may come again: when it did well, never, or every so many weeks. */
export const LASTING = ['', 'dated', 'evergreen'] as const;
export type Lasting = (typeof LASTING)[number];

/** A published post, as far as it may come again. */
export interface PastPost {
  id: string;
  /** The first of the posts that are this one again on the same channel; its own id for one that is none of another. */
  rootId: string;
  channelId: string;
  format: Format;
  publishedAt: Instant;
  lasting: Lasting;
  /** Of an evergreen post: weeks from one time to the next. */
  againWeeks: number | null;
  /** Engagement rate; null without numbers. */
  rate: number | null;
}

/** A post that may come again. */
export interface Encore {
  /** The post of its family that did best, or the last where none has numbers. */
  id: string;
  rootId: string;
  /** How many of its channel and format did less well, 0 to 1; null with too few to tell. */
  percentile: number | null;
  /** Posts it is held against, itself among them. */
  among: number;
  /** Whole days since it, or it again, went out last. */
  ageDays: number;
  /** 0 to 1: the higher, the sooner it should come again. */
  score: number;
  /** Of an evergreen family: weeks from one time to the next; null for any other. */
  againWeeks: number | null;
}

/** Posts that may come again, each family once. */
export interface Encores {
  /** Evergreen, and its weeks are over; the longest over first. */
  due: Encore[];
  /** By score, the highest first. */
  ranked: Encore[];
  /** Old enough, with too few numbers to be ranked; the oldest first. */
  unranked: Encore[];
}

/** Days after which a published post is old enough to come again, where a brand says nothing else. */
export const ENCORE_DAYS = { least: 7, most: 730, usual: 60 } as const;

/** Posts with numbers on a channel and in a format from which a percentile says something. */
const LEAST_NUMBERS = 5;
/** The percentile from which a post counts as one that did well. */
const DID_WELL = 0.5;
const DAY_MS = 86_400_000;

/**
 * Published posts by how much they are worth doing again. The score is the percentile of the post's engagement rate on its channel and
 * format, counted only from 0.5 up and for a rate above the middle one, times a factor that grows from 0 at the least age to 1 at twice that. Age counts from the last
 * time it or it again went out. Dated matter and what is planned again already are left out.
 *
 * @param planned the roots of families that have a post to come
 * @param minDays days after which a post is old enough; of an evergreen one its own weeks count instead
 */
export function findEncores(
  past: readonly PastPost[],
  planned: ReadonlySet<string>,
  minDays: number,
  now: Instant,
): Encores {
  const percentiles = percentilesOf(past);
  const isAboveMiddle = ({ id }: PastPost) => percentiles.get(id)!.isAboveMiddle;
  const encores: Encores = { due: [], ranked: [], unranked: [] };
  for (const [rootId, family] of groupBy(past, (post) => post.rootId)) {
    if (planned.has(rootId) || family.some(({ lasting }) => lasting === 'dated')) continue;
    const last = family.reduce((one, other) => (other.publishedAt > one.publishedAt ? other : one));
    const best = family.reduce((one, other) =>
      (percentiles.get(other.id)?.percentile ?? -1) > (percentiles.get(one.id)?.percentile ?? -1) ? other : one,
    );
    const { percentile, among } = percentiles.get(best.id)!;
    const weeks = family.find(({ lasting }) => lasting === 'evergreen')?.againWeeks ?? null;
    const least = weeks === null ? minDays : weeks * 7;
    const age = (Date.parse(now) - Date.parse(last.publishedAt)) / DAY_MS;
    if (age < least) continue;
    const grown = Math.min(1, (age - least) / least);
    const didWell = percentile !== null && percentile >= DID_WELL && isAboveMiddle(best);
    const score = didWell ? percentile * grown : 0;
    const id = percentile === null ? last.id : best.id;
    const encore: Encore = { id, rootId, percentile, among, ageDays: Math.floor(age), score, againWeeks: weeks };
    if (weeks !== null) encores.due.push(encore);
    else if (percentile === null) encores.unranked.push(encore);
    else if (score > 0) encores.ranked.push(encore);
  }
  const byAge = (one: Encore, other: Encore) => other.ageDays - one.ageDays || (one.id < other.id ? -1 : 1);
  encores.due.sort(byAge);
  encores.unranked.sort(byAge);
  encores.ranked.sort((one, other) => other.score - one.score || byAge(one, other));
  return encores;
}

/** Of each post the share of the others on its channel and in its format that did less well, those that did as well by half. */
type Standing = Pick<Encore, 'percentile' | 'among'> & { isAboveMiddle: boolean };

function percentilesOf(past: readonly PastPost[]): Map<string, Standing> {
  const found = new Map<string, Standing>();
  for (const [, peers] of groupBy(past, ({ channelId, format }) => `${channelId}:${format}`)) {
    const rates = peers.flatMap(({ rate }) => rate ?? []).sort((one, other) => one - other);
    const among = rates.length;
    for (const { id, rate } of peers) {
      if (rate === null || among < LEAST_NUMBERS) {
        found.set(id, { percentile: null, among, isAboveMiddle: false });
        continue;
      }
      const below = firstAt(rates, (other) => other >= rate);
      const upTo = firstAt(rates, (other) => other > rate);
      const middle = (rates[(among - 1) >> 1]! + rates[among >> 1]!) / 2;
      found.set(id, {
        ...{ percentile: (below + (upTo - below - 1) / 2) / (among - 1), among },
        isAboveMiddle: rate > middle,
      });
    }
  }
  return found;
}

/** The place of the first of a sorted list for which something holds; its length where it holds for none. */
function firstAt(sorted: readonly number[], holds: (value: number) => boolean): number {
  let [from, to] = [0, sorted.length];
  while (from < to) {
    const middle = (from + to) >> 1;
    if (holds(sorted[middle]!)) to = middle;
    else from = middle + 1;
  }
  return from;
}
