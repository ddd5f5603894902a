import { WRITTEN_FIELDS } from '@/core/posts/texts';
import type { Post } from '@/data/posts/posts';

/** The fields of a post that a change may touch and undoing puts back. Words that somebody types have steps of their own in their fields. */
export const POST_STATE = [
  ...([
    'date',
    'time',
    'until',
    'windowFrom',
    'stage',
    'stageBefore',
    'setAsideReason',
    'ownerId',
    'pillarId',
    'campaignId',
  ] as const),
  ...(['channelId', 'format', 'title', 'deletedAt', 'archivedAt', 'publishedAt', 'address', 'waived'] as const),
] satisfies readonly (keyof Post)[];

/** Those that hold whole copies: kept only where they differ. */
export const LARGE_STATE = [
  ...WRITTEN_FIELDS,
  'parts',
  'signOff',
  'drafted',
  'notSent',
  'madeOf',
] as const satisfies readonly (keyof Post)[];

/** Those fields of a post at some time. */
export type PostState = Pick<Post, (typeof POST_STATE)[number]> & Partial<Pick<Post, (typeof LARGE_STATE)[number]>>;
