import { TEXT_LIMITS } from '@/core/pieces/piece';
import { mayLeavePlan, mayMoveTo, type ChosenStage } from '@/core/stages/moves';
import type { Result } from '@/core/refusal';
import { withdrawDelivery } from '@/data/deliveries';
import { changePost, takePost, takePostAt, type OpenPost } from './posts';
import { doing, must, mustFit, refused, type Doing, type Work } from './work';

/** Puts a post at a stage by hand. Out of `scheduled`, it does not leave any more. */
export function putAtStage(
  work: Work,
  id: string,
  version: number,
  to: ChosenStage,
): Promise<Result<{ unscheduled: boolean }>> {
  return doing(work, async (act) => {
    const open = await takePostAt(act, id, version);
    must(mayMoveTo(open.facts, to));
    const unscheduled = await unschedule(act, open);
    await changePost(act, open, { stage: to }, 'put at stage', { from: open.post.stage, to });
    return { unscheduled };
  });
}

/** Sets a post aside with a reason. A scheduled one does not leave any more. */
export function setPostAside(
  work: Work,
  id: string,
  version: number,
  reason: string,
): Promise<Result<{ unscheduled: boolean }>> {
  return doing(work, async (act) => {
    const open = await takePostAt(act, id, version);
    must(mayLeavePlan(open.facts));
    mustFit(reason, TEXT_LIMITS.reason, 'Reason', 'reason');
    if (reason.trim() === '')
      refused({ code: 'noReason', field: 'reason', message: 'Say why, in a few words: it is looked back at later.' });
    const unscheduled = await unschedule(act, open);
    const stageBefore = open.post.stage === 'scheduled' ? 'ready' : open.post.stage;
    await changePost(act, open, { stage: 'setAside', stageBefore, setAsideReason: reason.trim() }, 'set aside');
    return { unscheduled };
  });
}

/** Brings a post back to the stage it had before it was set aside. */
export function bringPostBack(work: Work, id: string, version: number): Promise<Result<true>> {
  return doing(work, async (act) => {
    const open = await takePostAt(act, id, version);
    if (open.post.stage !== 'setAside') refused({ code: 'notAside', message: 'This post is not set aside.' });
    const stage = open.post.stageBefore ?? 'drafting';
    await changePost(act, open, { stage, stageBefore: null, setAsideReason: '' }, 'brought back');
    return true as const;
  });
}

/** Deletes a post that is not published. It can be restored. A scheduled one does not leave any more. */
export function deletePost(work: Work, id: string, version: number): Promise<Result<{ unscheduled: boolean }>> {
  return doing(work, async (act) => {
    const open = await takePostAt(act, id, version);
    must(mayLeavePlan(open.facts));
    const unscheduled = await unschedule(act, open);
    await changePost(act, open, { deletedAt: act.now, ...(unscheduled ? { stage: 'ready' as const } : {}) }, 'deleted');
    return { unscheduled };
  });
}

/** Brings a deleted post back. */
export function restorePost(work: Work, id: string): Promise<Result<true>> {
  return doing(work, async (act) => {
    const open = await takePost(act, id, { deleted: true });
    if (open.post.deletedAt !== null) await changePost(act, open, { deletedAt: null }, 'restored');
    return true as const;
  });
}

/** Puts a published post into the archive, out of the calendar's sight, or takes it out again. */
export function archivePost(work: Work, id: string, version: number, archived: boolean): Promise<Result<true>> {
  return doing(work, async (act) => {
    const open = await takePostAt(act, id, version);
    if (open.post.stage !== 'published')
      refused({ code: 'notPublished', message: 'Only what is published is archived. Set this aside, or delete it.' });
    await changePost(act, open, { archivedAt: archived ? act.now : null }, archived ? 'archived' : 'unarchived');
    return true as const;
  });
}

/** Withdraws the delivery of a scheduled post. @returns whether there was one */
export async function unschedule(act: Doing, { post, delivery }: OpenPost): Promise<boolean> {
  if (post.stage !== 'scheduled' || !delivery) return false;
  if (!(await withdrawDelivery(act.tx, delivery.id)))
    refused({ code: 'leaving', message: 'This post is leaving right now. Wait until the network has answered.' });
  return true;
}
