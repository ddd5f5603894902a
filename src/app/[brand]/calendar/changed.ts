import type { Slip } from '@/core/calendar/slip';
import type { WriteOutcome } from '@/core/posts/outcome';
import type { PostSheet } from '@/core/posts/sheet';

/** What the server answers to a change of one post on its sheet. */
export interface ChangedPost {
  outcome: Partial<WriteOutcome> & { retimed?: boolean; postId?: string };
  sheet: PostSheet;
  slip: Slip;
}
