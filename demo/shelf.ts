import { randomUUID } from 'node:crypto';
import { hashtagKey, readHashtags } from '@/core/captions/hashtags';
import type { Instant } from '@/core/time/plan';
import { insertBrandAsset } from '@/data/brands/brandAssets';
import type { Queryable } from '@/data/database/db';
import type { MediaFile } from '@/data/media/mediaFiles';
import { insertNames, insertShelfItems, noteShelfUses } from '@/data/shelf/shelf';
import type { Scenario } from './read';

/** Fills the shelf of a brand. A hashtag set counts as used in the posts that carry exactly its hashtags. */
export async function seedShelf(
  tx: Queryable,
  scenario: Scenario,
  brand: { id: string; slug: string },
  posts: readonly { id: string; hashtags: string; createdAt: Instant; publishedAt: Instant | null }[],
  files: ReadonlyMap<string, MediaFile>,
  now: Instant,
): Promise<void> {
  const items = scenario
    .shelf(brand.slug)
    .map((row) => ({ ...row, id: randomUUID(), brandId: brand.id, createdAt: now }));
  await insertShelfItems(tx, items);
  await noteShelfUses(
    tx,
    items
      .filter(({ kind }) => kind === 'hashtags')
      .flatMap(({ id: itemId, text }) =>
        posts
          .filter(({ hashtags }) => keyOf(hashtags) === keyOf(text))
          .map(({ id: postId, publishedAt, createdAt }) => ({ itemId, postId, at: publishedAt ?? createdAt })),
      ),
  );
  await insertNames(
    tx,
    scenario.names(brand.slug).map(({ kind, name, ...handles }) => ({
      id: randomUUID(),
      brandId: brand.id,
      kind,
      name,
      handles: Object.fromEntries(Object.entries(handles).filter(([, handle]) => handle !== '')),
    })),
  );
  for (const { kind, name, value, file } of scenario.brandSheets.filter((row) => row.brand === brand.slug)) {
    const picture = file === '' ? null : files.get(file)!;
    await insertBrandAsset(tx, {
      id: randomUUID(),
      brandId: brand.id,
      kind,
      name,
      value,
      sha256: picture?.sha256 ?? null,
      mime: picture?.mime ?? null,
      bytes: picture?.bytes ?? null,
      fileName: picture?.fileName ?? null,
    });
  }
}

const keyOf = (hashtags: string): string => readHashtags(hashtags).map(hashtagKey).sort().join(' ');
