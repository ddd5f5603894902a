import { openingsBetween, type ChannelRhythm } from '@/core/rhythm/openings';
import { chooseMinute, readWindow, type Window } from '@/core/rhythm/window';
import type { Refusal } from '@/core/refusal';
import { dueInstant, type Instant, type LocalDate, type LocalTime } from '@/core/time/plan';
import type { Brand } from '@/data/brands/brands';
import type { Channel } from '@/data/brands/channels';
import type { Post } from '@/data/posts/posts';
import { listRhythms } from '@/data/rhythm/rhythms';
import { listTimesOfDays } from '@/data/rhythm/timesOfDays';
import { must, refused, type Acting } from '../useCase';

/** What a post is that is scheduled, with where it is. */
interface Scheduled {
  post: Post;
  brand: Brand;
  channel: Channel;
}

/** A minute that was chosen in a window. */
export interface ChosenMinute {
  time: LocalTime;
  until: LocalTime;
  windowFrom: LocalTime;
  dueAt: Instant;
}

/** Chooses the minutes of posts that are scheduled together; null for one that leaves at its own minute. */
export type MinuteChooser = (scheduled: Scheduled) => ChosenMinute | null;

const keyOf = (channelId: string, date: LocalDate): string => `${channelId} ${date}`;

/**
 * Reads what the minutes of posts that are scheduled now are chosen by: the windows of their channels, and what else is planned on their
 * days. Each minute that was chosen counts for those after it.
 */
export async function readChooser({ tx, now }: Acting, posts: readonly Scheduled[]): Promise<MinuteChooser> {
  const open = posts.filter(({ post }) => post.date !== null && post.time !== null && post.windowFrom === null);
  if (open.length === 0) return () => null;
  const brandIds = [...new Set(open.map(({ brand }) => brand.id))];
  const rhythms = new Map((await listRhythms(tx, brandIds)).map((rhythm) => [rhythm.channelId, rhythm]));
  const windowed = open.filter((one) => windowOf(one, rhythms) !== null);
  if (windowed.length === 0) return () => null;
  const taken = await listTimesOfDays(
    tx,
    windowed.map(({ post, channel }) => ({ channelId: channel.id, date: post.date! })),
  );
  return (scheduled) => {
    const { post, brand, channel } = scheduled;
    const window = post.windowFrom === null ? windowOf(scheduled, rhythms) : null;
    if (window === null || post.date === null) return null;
    must(readWindow(window, channel.distanceMinutes));
    const { date } = post;
    const dueAt = (time: LocalTime): Instant | null => {
      const due = dueInstant(date, time, brand.zone);
      return due.ok && due.value > now ? due.value : null;
    };
    const others = taken.flatMap((other) =>
      other.postId !== post.id && keyOf(other.channelId, other.date) === keyOf(channel.id, date) ? other.time : [],
    );
    const chosen = chooseMinute(window, others, {
      distance: channel.distanceMinutes,
      seed: `${post.id}:${date}`,
      mayBe: (minute) => dueAt(minute) !== null,
    });
    const time = chosen ?? refused(windowOver(window));
    taken.push({ postId: post.id, channelId: channel.id, date, time });
    return { time, until: window.until, windowFrom: window.from, dueAt: dueAt(time)! };
  };
}

const windowOver = ({ from, until }: Window): Refusal => ({
  code: 'past',
  field: 'time',
  message: `The time from ${from} to ${until} has passed. Choose a time to come.`,
});

/** The window in which a post leaves: its own, else that of the opening that it stands at; null for its very minute. */
export function windowOf(
  { post: { date, time, until, format }, brand, channel }: Scheduled,
  rhythms: ReadonlyMap<string, ChannelRhythm>,
): Window | null {
  if (date === null || time === null) return null;
  if (until !== null) return until > time ? { from: time, until } : null;
  const rhythm = rhythms.get(channel.id);
  const opening =
    rhythm &&
    openingsBetween(rhythm, date, date, brand.zone).find(
      (one) => one.time === time && one.until !== null && (one.format === null || one.format === format),
    );
  return opening ? { from: opening.time, until: opening.until! } : null;
}
