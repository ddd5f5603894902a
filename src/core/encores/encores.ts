import { compareText } from '../compareText';
import { groupBy } from '../group';
import type { Format } from '../rulesheets/types';
import { addMs, type Instant } from '../time/plan';

/** Whether a post may come again: when it did well, or never. What comes again by itself is a repeat. */
export const LASTING = ['', 'dated'] as const;
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
}

/** Posts that may come again, each family once. */
export interface Encores {
  /** By score, the highest first. */
  ranked: Encore[];
  /** Old enough, with too few numbers to be ranked; the oldest first. */
  unranked: Encore[];
}

/** Days after which a published post is old enough to come again, where a brand says nothing else. */
export const ENCORE_DAYS = { least: 7, most: 730, usual: 60 } as const;

/** Posts with numbers on a channel and in a format from which a percentile says something. */
const LEAST_NUMBERS = 5;
const DAY_MS = 86_400_000;

/** How all published posts on a channel in a format did. */
export interface Peers {
  channelId: string;
  format: Format;
  /** Engagement rates of those with numbers, the lowest first. */
  rates: readonly number[];
}

/** The rate in the middle of peers, of which posts that did well are above; null of too few to tell. */
export const middleRate = ({ rates }: Pick<Peers, 'rates'>): number | null =>
  rates.length < LEAST_NUMBERS ? null : (rates[(rates.length - 1) >> 1]! + rates[rates.length >> 1]!) / 2;

/** The instants before which a family has to be out last to be old enough, and to count in full. */
export const oldEnough = (now: Instant, minDays: number): { least: Instant; full: Instant } => ({
  least: addMs(now, -minDays * DAY_MS),
  full: addMs(now, -2 * minDays * DAY_MS),
});

/**
 * Families of published posts by how much they are worth doing again. The score is the percentile of the post's engagement rate on its
 * channel and format, counted only for a rate above the middle one (which is a percentile over 0.5), times a factor that grows from 0 at the
 * least age to 1 at twice that. Age counts from the last time it or it again went out. What is dated or planned again already is not among them.
 *
 * @param past all published posts of families that may come again
 * @param minDays days after which a post is old enough
 */
export function findEncores(
  past: readonly PastPost[],
  peers: readonly Peers[],
  minDays: number,
  now: Instant,
): Encores {
  const standings = standingsOf(past, peers);
  const encores: Encores = { ranked: [], unranked: [] };
  const families = [...groupBy(past, (post) => post.rootId)].map(([rootId, family]) => ({
    ...{ rootId, family },
    last: family.reduce((one, other) => (other.publishedAt > one.publishedAt ? other : one)),
  }));
  families.sort(
    (one, other) => compareText(one.last.publishedAt, other.last.publishedAt) || compareText(one.rootId, other.rootId),
  );
  for (const { rootId, family, last } of families) {
    const best = family.reduce((one, other) =>
      worth(standings.get(other.id)!) > worth(standings.get(one.id)!) ? other : one,
    );
    const { percentile, among, isAboveMiddle } = standings.get(best.id)!;
    const age = (Date.parse(now) - Date.parse(last.publishedAt)) / DAY_MS;
    if (age < minDays) continue;
    const grown = Math.min(1, (age - minDays) / minDays);
    const score = percentile !== null && isAboveMiddle ? percentile * grown : 0;
    const id = percentile === null ? last.id : best.id;
    const encore: Encore = { id, rootId, percentile, among, ageDays: Math.floor(age), score };
    if (percentile === null) encores.unranked.push(encore);
    else if (score > 0) encores.ranked.push(encore);
  }
  encores.ranked.sort((one, other) => other.score - one.score);
  return encores;
}

/** Of each post the share of the others on its channel and in its format that did less well, those that did as well by half. */
type Standing = Pick<Encore, 'percentile' | 'among'> & { isAboveMiddle: boolean };

function standingsOf(past: readonly PastPost[], peers: readonly Peers[]): Map<string, Standing> {
  const keyOf = ({ channelId, format }: Pick<Peers, 'channelId' | 'format'>) => `${channelId}:${format}`;
  const byKey = new Map(peers.map((one) => [keyOf(one), { rates: one.rates, middle: middleRate(one) }]));
  return new Map(
    past.map((post): [string, Standing] => {
      const { rates, middle } = byKey.get(keyOf(post)) ?? { rates: [], middle: null };
      const { id, rate } = post;
      const among = rates.length;
      if (rate === null || middle === null) return [id, { percentile: null, among, isAboveMiddle: false }];
      const below = firstAt(rates, (other) => other >= rate);
      const upTo = firstAt(rates, (other) => other > rate);
      const percentile = (below + (upTo - below - 1) / 2) / (among - 1);
      return [id, { percentile, among, isAboveMiddle: rate > middle }];
    }),
  );
}

/** By what the best of a family is known: one that did well before one that only has a higher percentile of its own format. */
const worth = ({ percentile, isAboveMiddle }: Standing): number => (percentile ?? -1) + (isAboveMiddle ? 1 : 0);

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
