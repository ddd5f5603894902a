import type { Instant, Zone } from '../time/plan';

/** What people are told of. */
export const NOTICE_KINDS = ['dueByHand', 'notSent', 'unsure', 'held', 'takeDown'] as const;
export type NoticeKind = (typeof NOTICE_KINDS)[number];

/** Minutes between which somebody may be told before a post is due by hand, and those that are offered. */
export const LEAD_MINUTES = { least: 0, most: 1440, offered: [0, 5, 10, 15, 30] } as const;

/** Whether it is a number of minutes by which people may be told before. */
export const isLead = (minutes: number): boolean =>
  Number.isInteger(minutes) && minutes >= LEAD_MINUTES.least && minutes <= LEAD_MINUTES.most;

/** What somebody was told, with what it is about as it stands now. */
export interface Notice {
  id: string;
  kind: NoticeKind;
  madeAt: Instant;
  readAt: Instant | null;
  /** What it is about has been dealt with since. */
  isSettled: boolean;
  postId: string;
  title: string;
  channel: string;
  brand: { slug: string; name: string; zone: Zone };
  /** When the post is, or was, to leave. */
  dueAt: Instant;
}

/** What somebody has still to look at, the last of it. */
export interface FreshNotices {
  count: number;
  notices: Notice[];
}

/** Whether somebody has still to look at a notice. */
export const isFresh = ({ readAt, isSettled }: Pick<Notice, 'readAt' | 'isSettled'>): boolean =>
  readAt === null && !isSettled;

/** A notice as a sentence, on the clock of its brand. */
export function noticeWords({
  kind,
  title,
  channel,
  dueAt,
  brand,
}: Pick<Notice, 'kind' | 'title' | 'channel' | 'dueAt' | 'brand'>): string {
  const post = `“${title}” on ${channel}`;
  const when = whenWords(dueAt, brand.zone);
  switch (kind) {
    case 'dueByHand':
      return `${post} is to be posted by hand: ${when}.`;
    case 'notSent':
      return `${post} was not sent: ${when}.`;
    case 'unsure':
      return `${post}: nobody knows whether it went out, ${when}.`;
    case 'held':
      return `${post} was held back: ${when}.`;
    case 'takeDown':
      return `${post} is to be taken down there by hand, since ${when}.`;
  }
}

/** `Wed 25 Nov 14:30` on the wall in that zone. */
function whenWords(instant: Instant, zone: Zone): string {
  const part = (options: Intl.DateTimeFormatOptions) =>
    new Intl.DateTimeFormat('en-GB', { ...options, timeZone: zone }).format(new Date(instant)).replace(',', '');
  return `${part({ weekday: 'short', day: 'numeric', month: 'short' })} ${part({ hour: '2-digit', minute: '2-digit' })}`;
}

/** Where somebody deals with what a notice is about: the page for posting by hand, or the post. */
export const placeOfNotice = ({ kind, postId, brand }: Pick<Notice, 'kind' | 'postId' | 'brand'>): string =>
  kind === 'dueByHand' ? `/${brand.slug}/by-hand/${postId}` : `/${brand.slug}/calendar?post=${postId}`;
