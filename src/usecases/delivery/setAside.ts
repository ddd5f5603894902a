import type { LocalDate } from '@/core/time/plan';
import { groupBy } from '@/core/group';
import { listReasonsSetAside, listSetAside, type SetAsidePost } from '@/data/posts/setAside';
import type { Db } from '../useCase';

/** Posts and reasons that are shown, at most. */
const SHOWN = { posts: 500, reasons: 30 } as const;

/** What was set aside and never went out, or went out and was taken down. */
export interface SetAside {
  reasons: { reason: string; count: number }[];
  /** By the month of its day, the last first; null where it has none. */
  months: { month: LocalDate | null; posts: SetAsidePost[] }[];
  /** There are more than are shown. */
  isCut: boolean;
}

/** Looks through what was set aside. @param reason only what was set aside for it; null for all */
export async function loadSetAside(db: Db, brandId: string, reason: string | null): Promise<SetAside> {
  const [reasons, posts] = await Promise.all([
    listReasonsSetAside(db, brandId, SHOWN.reasons),
    listSetAside(db, brandId, reason, SHOWN.posts + 1),
  ]);
  const byMonth = groupBy(posts.slice(0, SHOWN.posts), ({ date }) => (date === null ? '' : `${date.slice(0, 7)}-01`));
  return {
    reasons,
    months: [...byMonth].map(([month, own]) => ({ month: month === '' ? null : month, posts: own })),
    isCut: posts.length > SHOWN.posts,
  };
}
