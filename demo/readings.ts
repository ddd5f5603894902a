import { chanceOf } from '@/core/drafts/chance';
import type { Reading } from '@/core/results/engagement';
import type { Format } from '@/core/rulesheets/types';
import { addMs, type Instant } from '@/core/time/plan';
import { updateLasting } from '@/data/encores/encores';
import type { Queryable } from '@/data/database/db';

const DAY_MS = 86_400_000;
/** Days after publishing on which numbers were read. */
const READ_AFTER_DAYS = [1, 3, 7, 28];
/** Days in which a post gathers some two thirds of what it will. */
const SPREAD_DAYS = 2.2;

/** What a format reaches in the end, and how many of a hundred of those like, comment, share, save, click and follow. */
const USUAL: Partial<
  Record<
    Format,
    { reach: number; likes: number; comments: number; shares: number; saves: number; clicks: number; follows: number }
  >
> = {
  photo: { reach: 1400, likes: 5.2, comments: 0.4, shares: 0.3, saves: 0.5, clicks: 0, follows: 0.1 },
  carousel: { reach: 2100, likes: 4.6, comments: 0.5, shares: 0.8, saves: 1.6, clicks: 0, follows: 0.2 },
  shortVideo: { reach: 4800, likes: 3.1, comments: 0.3, shares: 0.6, saves: 0.4, clicks: 0, follows: 0.2 },
  longVideo: { reach: 900, likes: 4, comments: 0.8, shares: 0.4, saves: 0.6, clicks: 1.1, follows: 0.9 },
  text: { reach: 700, likes: 1.9, comments: 0.5, shares: 0.4, saves: 0.1, clicks: 1.4, follows: 0.1 },
  thread: { reach: 1200, likes: 2.4, comments: 0.6, shares: 0.9, saves: 0.4, clicks: 1.2, follows: 0.3 },
  story: { reach: 520, likes: 0.9, comments: 0.2, shares: 0.1, saves: 0, clicks: 1.8, follows: 0 },
  boardPicture: { reach: 380, likes: 0.4, comments: 0, shares: 0.2, saves: 3.8, clicks: 2.2, follows: 0.1 },
  article: { reach: 620, likes: 1.2, comments: 0.3, shares: 0.5, saves: 0.3, clicks: 4, follows: 0.2 },
  newsletter: { reach: 1850, likes: 0.6, comments: 0.2, shares: 0.2, saves: 0, clicks: 6, follows: 0.1 },
  live: { reach: 640, likes: 3.5, comments: 2.4, shares: 0.4, saves: 0.2, clicks: 0.5, follows: 0.6 },
};

/** What the networks of the demo said of a published post: a curve that rises quickly and flattens, its height by the post. */
export function readingsOf(
  post: {
    id: string;
    title: string;
    caption: string;
    channelId: string;
    format: Format;
    publishedAt: Instant | null;
    address: string;
  },
  now: Instant,
): (Reading & { postId: string })[] {
  const usual = USUAL[post.format];
  // A personal profile tells nobody its numbers.
  if (!usual || post.publishedAt === null || post.address.includes('homestoop')) return [];
  const salt = `${post.title} ${post.caption} ${post.publishedAt.slice(0, 10)}`;
  // Bell-shaped around 0: the sum of four even chances.
  const bell = (name: string) => [1, 2, 3, 4].reduce((sum, turn) => sum + chanceOf(turn, name, salt) - 0.5, 0);
  const height = Math.exp(0.75 * bell('reach'));
  const warmth = Math.exp(0.6 * bell('likes'));
  const words = post.caption.length > 240 ? 1.15 : 1;
  return READ_AFTER_DAYS.flatMap((days) => {
    const at = addMs(post.publishedAt!, days * DAY_MS);
    if (at > now) return [];
    const reach = Math.round(usual.reach * height * (1 - Math.exp(-days / SPREAD_DAYS)));
    const of = (share: number, name: string) =>
      Math.round(((reach * share * warmth * words) / 100) * Math.exp(0.3 * bell(name)));
    const isVideo = post.format === 'shortVideo' || post.format === 'longVideo' || post.format === 'live';
    const views = isVideo ? Math.round(reach * 1.3) : null;
    return [
      {
        postId: post.id,
        at,
        reach,
        views,
        likes: of(usual.likes, 'liked'),
        comments: of(usual.comments, 'comments'),
        shares: of(usual.shares, 'shares'),
        saves: of(usual.saves, 'saves'),
        clicks: of(usual.clicks, 'clicks'),
        follows: of(usual.follows, 'follows'),
        watchSeconds: views === null ? null : Math.round(views * (post.format === 'shortVideo' ? 14 : 190)),
      },
    ];
  });
}

/** Titles of the demo that never may come again. */
const DATED = /tonight|star night|new moon|moon drawing|family hour|open workshop|crossings today|letter/i;

/** Says of the published posts of the demo which may not come again. */
export async function sayWhatLasts(
  tx: Queryable,
  posts: readonly { id: string; title: string; stage: string }[],
): Promise<void> {
  for (const { id, title, stage } of posts) {
    if (stage !== 'published') continue;
    if (DATED.test(title)) await updateLasting(tx, id, 'dated');
  }
}
