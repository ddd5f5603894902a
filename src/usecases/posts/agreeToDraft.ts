import { quoted } from '@/core/calendar/change';
import { unreadOf } from '@/core/posts/unread';
import type { Result } from '@/core/refusal';
import { mayEdit } from '@/core/stages/moves';
import { takePostAt } from './takePosts';
import { doing, must, type Work } from '../useCase';
import { changePost } from './writePosts';

/** Says that the sentences of a draft that are not the piece's own look right: they are read. */
export function agreeToDraft(work: Work, postId: string, version: number): Promise<Result<true>> {
  return doing(work, async (act) => {
    const open = await takePostAt(act, postId, version, 'changePosts');
    must(mayEdit(open.facts));
    await changePost(act, {
      open,
      change: { drafted: open.post.drafted.map((mark) => ({ ...mark, isRead: true })) },
      deed: 'draft read',
      undoneAs: `Checked the draft of ${quoted(open.post.title)}`,
      detail: { sentences: unreadOf(open.post, open.post.drafted).length },
    });
    return true as const;
  });
}
