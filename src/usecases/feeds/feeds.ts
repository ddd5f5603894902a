import type { Result } from '@/core/refusal';
import { insertFeed, listFeeds, revokeFeed, type Feed } from '@/data/feeds/feeds';
import { hashOfKey, newKey } from '@/data/signIn/keys';
import { mustMay } from '../rights/mustMay';
import { doing, notFound, refused, type Db, type Work } from '../useCase';

/** Feeds that somebody has at once, at most. */
const MOST = 20;

/** The feeds of somebody. */
export const loadFeeds = (db: Db, personId: string): Promise<Feed[]> => listFeeds(db, personId);

/**
 * Makes a feed of one's own things, or of a brand. Its key is told this once.
 *
 * @param brandId null: of what is one's own, in all brands
 */
export function makeFeed(work: Work, brandId: string | null): Promise<Result<{ key: string }>> {
  return doing(work, async (act) => {
    if (brandId !== null) await mustMay(act, 'look', brandId);
    if ((await listFeeds(act.tx, act.actorId)).length >= MOST)
      refused({ code: 'tooManyFeeds', message: `You have ${MOST} feeds. Revoke one that you do not use first.` });
    const key = newKey();
    const feed = { id: act.ids(), personId: act.actorId, brandId, madeAt: act.now, keyHash: hashOfKey(key) };
    await insertFeed(act.tx, feed);
    return { key };
  });
}

/** Revokes one of one's own feeds: its address is nothing from now on. */
export function endFeed(work: Work, id: string): Promise<Result<true>> {
  return doing(work, async (act) => {
    if (!(await revokeFeed(act.tx, act.actorId, id, act.now))) refused(notFound('feed'));
    return true as const;
  });
}
