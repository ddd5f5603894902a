import { findEncores, type Encore, type Encores, type Lasting } from '@/core/encores/encores';
import { engagementOf, engagementRate, type EngagementRate } from '@/core/results/engagement';
import type { Instant } from '@/core/time/plan';
import type { Brand } from '@/data/brands/brands';
import type { Queryable } from '@/data/database/db';
import { listPast, listPlannedAgain, type PastRow } from '@/data/encores/encores';
import { listPostsById } from '@/data/posts/posts';
import { firstPictures } from '@/data/media/media';

/** A post that may come again, with what was said then and how it did. */
export interface ShownEncore extends Encore {
  title: string;
  pieceId: string;
  channelId: string;
  format: string;
  headline: string;
  caption: string;
  publishedAt: Instant;
  lasting: Lasting;
  engagement: number | null;
  rate: EngagementRate | null;
  /** Content hash of its first picture; null without one. */
  picture: string | null;
}

/** Encores shown of each kind, at most. */
const SHOWN = 40;

/** The encores of a brand: what is due again, what did well, and what is old enough without numbers. */
export async function loadEncores(
  db: Queryable,
  brand: Pick<Brand, 'id' | 'encoreDays'>,
  now: Instant,
): Promise<{ [Kind in keyof Encores]: { shown: ShownEncore[]; count: number } }> {
  const [past, planned] = await Promise.all([listPast(db, brand.id), listPlannedAgain(db, brand.id)]);
  const encores = findEncores(
    past.map((row) => ({ ...row, rate: engagementRate(row)?.value ?? null })),
    planned,
    brand.encoreDays,
    now,
  );
  const kinds = Object.entries(encores) as [keyof Encores, Encore[]][];
  const ids = kinds.flatMap(([, all]) => all.slice(0, SHOWN).map(({ id }) => id));
  const [posts, pictures] = await Promise.all([listPostsById(db, ids), firstPictures(db, ids)]);
  const byId = new Map(posts.map((post) => [post.id, post]));
  const rows = new Map(past.map((row) => [row.id, row]));
  const show = (encore: Encore): ShownEncore => {
    const { title, pieceId, channelId, format, headline, caption, publishedAt } = byId.get(encore.id)!;
    const row: PastRow = rows.get(encore.id)!;
    return {
      ...encore,
      ...{ title, pieceId, channelId, format, headline, caption },
      // Dated matter is none of them.
      lasting: encore.againWeeks === null ? '' : 'evergreen',
      publishedAt: publishedAt!,
      engagement: engagementOf(row),
      rate: engagementRate(row),
      picture: pictures.get(encore.id) ?? null,
    };
  };
  const shownOf = (all: readonly Encore[]) => ({ shown: all.slice(0, SHOWN).map(show), count: all.length });
  return { due: shownOf(encores.due), ranked: shownOf(encores.ranked), unranked: shownOf(encores.unranked) };
}
