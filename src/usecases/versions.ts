import { differingFields, STRETCH_MS, writtenOf, type WrittenWords } from '@/core/posts/written';
import { msBetween } from '@/core/time/plan';
import type { Post } from '@/data/posts';
import { insertWordsVersions, maybeNewestVersion, updateWordsVersion } from '@/data/versions';
import type { Doing } from './work';

/**
 * Keeps what a post's words are after an edit. What one person writes within ten minutes of their last save is one
 * version; before the first, what stood there is kept too, so that it can be taken back.
 */
export async function keepVersion(act: Doing, before: Post, after: WrittenWords): Promise<void> {
  const was = writtenOf(before);
  if (differingFields(was, after).length === 0) return;
  const newest = await maybeNewestVersion(act.tx, before.id);
  if (newest && newest.personId === act.actorId && msBetween(newest.at, act.now) < STRETCH_MS)
    return updateWordsVersion(act.tx, newest.id, act.now, after);
  const own = { id: act.ids(), postId: before.id, personId: act.actorId, at: act.now, words: after };
  const original = { id: act.ids(), postId: before.id, personId: before.ownerId, at: before.createdAt, words: was };
  await insertWordsVersions(act.tx, newest ? [own] : [original, own]);
}
