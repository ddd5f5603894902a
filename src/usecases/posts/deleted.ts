import { addMs, type Instant } from '@/core/time/plan';
import { listDeletedPosts, type DeletedPost } from '@/data/posts/deletedPosts';
import { DELETED_DAYS } from '@/core/posts/deleted';
import type { Db } from '../useCase';

export type { DeletedPost } from '@/data/posts/deletedPosts';

/** Deleted posts that are listed. */
const SHOWN = 300;

/** The posts of a brand that were deleted and can be brought back, the last first. */
export const loadDeletedPosts = (db: Db, brandId: string, now: Instant): Promise<DeletedPost[]> =>
  listDeletedPosts(db, brandId, addMs(now, -DELETED_DAYS * 86_400_000), SHOWN);
