import { quoted } from '@/core/calendar/change';
import type { Result } from '@/core/refusal';
import { TEXT_LIMITS } from '@/core/pieces/piece';
import { mustMay } from '../rights/mustMay';
import { takePostAt } from './takePosts';
import { doing, mustFit, refused, type Work } from '../useCase';
import { changePost } from './writePosts';

/**
 * Lets what the team still wants of a post go, with a reason that stays in its history. Wants that come up later are not
 * covered, and what the network would refuse is waived by nobody.
 */
export function waiveWants(work: Work, postId: string, version: number, reason: string): Promise<Result<true>> {
  return doing(work, async (act) => {
    const open = await takePostAt(act, postId, version, 'waive');
    await mustMay(act, 'waive', open.post.brandId);
    const { wants } = open.facts;
    const why = reason.trim();
    mustFit(why, TEXT_LIMITS.reason, 'Reason', 'reason');
    if (why === '') refused({ code: 'noReason', field: 'reason', message: 'Say why, in a few words: it is kept.' });
    if (wants.length === 0) refused({ code: 'nothing', message: 'Nothing is wanting that could be waived.' });
    const added = wants.map(({ key }) => ({ key, reason: why, by: act.actorId, at: act.now }));
    await changePost(act, {
      open,
      change: { waived: [...open.post.waived, ...added] },
      deed: 'wants waived',
      undoneAs: `Waived what is missing of ${quoted(open.post.title)}`,
      detail: { wants: wants.map(({ message }) => message), reason: why },
    });
    return true as const;
  });
}
