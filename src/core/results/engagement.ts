import type { Instant } from '../time/plan';

/** What is counted of a post. */
export const MEASURES = [
  'reach',
  'views',
  'likes',
  'comments',
  'shares',
  'saves',
  'clicks',
  'follows',
  'watchSeconds',
] as const;
export type Measure = (typeof MEASURES)[number];

/** What a network said of a post; null for what it does not tell. */
export type Counts = Record<Measure, number | null>;

/** Nothing is told. */
export const NOTHING_TOLD = Object.fromEntries(MEASURES.map((measure) => [measure, null])) as Counts;

/** What a network said of a post at an instant. */
export interface Reading extends Counts {
  at: Instant;
}

/** Engagement in relation to those who could have engaged. */
export interface EngagementRate {
  /** 0 and up: 0.05 for five in a hundred. */
  value: number;
  of: 'reach' | 'views';
}

const ENGAGING = ['likes', 'comments', 'shares', 'saves'] as const satisfies readonly Measure[];

/** Likes, comments, shares and saves together; null where none of them is told. */
export function engagementOf(counts: Partial<Counts>): number | null {
  const told = ENGAGING.flatMap((measure) => counts[measure] ?? []);
  return told.length === 0 ? null : told.reduce((sum, count) => sum + count, 0);
}

/** Engagement by reach, else by views; null where neither is told, or is nothing. The database keeps the same of each post. */
export function engagementRate(counts: Partial<Counts>): EngagementRate | null {
  const engagement = engagementOf(counts);
  if (engagement === null) return null;
  if (counts.reach) return { value: engagement / counts.reach, of: 'reach' };
  return counts.views ? { value: engagement / counts.views, of: 'views' } : null;
}
