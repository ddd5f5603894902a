import type { Slip } from '@/core/calendar/slip';
import type { WriteOutcome } from '@/core/posts/outcome';
import type { PostSheet } from '@/core/posts/sheet';
import type { ChangeOutcome } from '@/usecases/calendar/changePosts';

/** What the server answers to a change of one post on its sheet. */
export interface ChangedPost {
  outcome: Partial<WriteOutcome> & { retimed?: boolean; postId?: string };
  sheet: PostSheet;
  slip: Slip;
}

/** What the server answers to a change on the calendar. */
export interface CalendarAnswer {
  outcome: ChangeOutcome;
  /** The posts concerned as they are now. */
  slips: Slip[];
  /** Posts that the calendar shows no more. */
  gone: string[];
}
