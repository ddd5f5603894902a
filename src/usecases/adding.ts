import { groupBy } from '@/core/group';
import { insertPosts } from '@/data/posts';
import { recountPiecesOf } from './counting';
import { givePrep, prepOfPost } from './givingPrep';
import type { Doing } from './work';

/** A post to be made, as far as its prep depends on it. */
type NewPost = Parameters<typeof insertPosts>[1][number];

/** Adds posts with the prep of their formats, counted back from their days. What is published already gets none. */
export async function addPosts(act: Doing, posts: readonly NewPost[]): Promise<void> {
  await insertPosts(act.tx, posts);
  for (const [brandId, own] of groupBy(posts, (post) => post.brandId)) {
    await givePrep(
      act,
      brandId,
      own.filter(({ stage }) => stage !== 'published' && stage !== 'setAside').map(prepOfPost),
    );
    await recountPiecesOf(
      act.tx,
      brandId,
      own.map(({ id }) => id),
      act.now,
    );
  }
}
