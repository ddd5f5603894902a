import type { Format } from '@/core/rulesheets/types';
import { findEncores, middleRate, oldEnough, type Encore, type Encores } from '@/core/encores/encores';
import { engagementOf, engagementRate, type EngagementRate } from '@/core/results/engagement';
import type { Instant } from '@/core/time/plan';
import type { Brand } from '@/data/brands/brands';
import type { Queryable } from '@/data/database/db';
import { listMayComeAgain, listPeers } from '@/data/encores/encores';
import { firstPictures } from '@/data/media/media';
import { listPostsById } from '@/data/posts/posts';
import { latestReadings } from '@/data/results/readings';

/** A post that may come again, with what was said then and how it did. */
export interface ShownEncore extends Encore {
  title: string;
  pieceId: string;
  channelId: string;
  format: Format;
  headline: string;
  caption: string;
  publishedAt: Instant;
  engagement: number | null;
  rate: EngagementRate | null;
  /** Content hash of its first picture; null without one. */
  picture: string | null;
}

/** Encores of a kind: those shown, and whether there are more. */
interface ShownEncores {
  shown: ShownEncore[];
  hasMore: boolean;
}

/** The encores of a brand, at most so many of each kind: what did well, and what is old enough without numbers. */
export async function loadEncores(
  db: Queryable,
  brand: Pick<Brand, 'id' | 'encoreDays'>,
  now: Instant,
  most = 40,
): Promise<Record<keyof Encores, ShownEncores>> {
  const peers = await listPeers(db, brand.id);
  const past = await listMayComeAgain(db, brand.id, {
    middles: peers.map(({ channelId, format, rates }) => ({ channelId, format, middle: middleRate({ rates }) })),
    ...oldEnough(now, brand.encoreDays),
    limit: most + 1,
  });
  const encores = findEncores(past, peers, brand.encoreDays, now);
  const ids = [encores.ranked, encores.unranked].flatMap((all) => all.slice(0, most).map(({ id }) => id));
  const [posts, pictures, readings] = await Promise.all([
    listPostsById(db, ids),
    firstPictures(db, ids),
    latestReadings(db, ids),
  ]);
  const byId = new Map(posts.map((post) => [post.id, post]));
  const show = (encore: Encore): ShownEncore => {
    const { title, pieceId, channelId, format, headline, caption, publishedAt } = byId.get(encore.id)!;
    const reading = readings.get(encore.id) ?? {};
    return {
      ...encore,
      ...{ title, pieceId, channelId, format, headline, caption },
      publishedAt: publishedAt!,
      engagement: engagementOf(reading),
      rate: engagementRate(reading),
      picture: pictures.get(encore.id) ?? null,
    };
  };
  const shownOf = (all: readonly Encore[]): ShownEncores => ({
    shown: all.slice(0, most).map(show),
    hasMore: all.length > most,
  });
  return { ranked: shownOf(encores.ranked), unranked: shownOf(encores.unranked) };
}
