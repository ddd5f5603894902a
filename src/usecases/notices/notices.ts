import type { FreshNotices, Notice } from '@/core/notices/notice';
import type { Result } from '@/core/refusal';
import { countFreshNotices, listNotices, readNotices } from '@/data/notices/notices';
import { doing, type Db, type Work } from '../useCase';

/** Notices that are shown, the last ones. */
const SHOWN = 200;
/** Notices that are told of at once where somebody looks at something else. */
const TOLD = 20;

/** What somebody has been told. */
export const loadNotices = (db: Db, personId: string): Promise<Notice[]> =>
  listNotices(db, personId, { isFresh: false, limit: SHOWN });

/** What somebody has still to look at. */
export async function loadFresh(db: Db, personId: string): Promise<FreshNotices> {
  const [count, notices] = await Promise.all([
    countFreshNotices(db, personId),
    listNotices(db, personId, { isFresh: true, limit: TOLD }),
  ]);
  return { count, notices };
}

/** Notes that somebody looked at their own notices: those named, or with null all. */
export function markRead(work: Work, ids: readonly string[] | null): Promise<Result<true>> {
  return doing(work, async ({ tx, actorId, now }) => {
    await readNotices(tx, actorId, ids, now);
    return true as const;
  });
}
