import type { WriteOutcome } from '@/core/posts/outcome';
import { changeWords, quoted } from '@/core/calendar/change';
import { TEXT_LIMITS } from '@/core/pieces/piece';
import { mayLeavePlan, mayMoveTo, type ChosenStage } from '@/core/stages/moves';
import type { Result } from '@/core/refusal';
import { takePost, takePostAt, type OpenPost } from './takePosts';
import { doing, must, mustFit, refused, type Work } from '../useCase';
import type { PostWrite } from './checkWrites';
import { changePost } from './writePosts';

/** Puts a post at a stage by hand. Out of `scheduled`, it does not leave any more. */
export function putAtStage(work: Work, id: string, version: number, to: ChosenStage): Promise<Result<WriteOutcome>> {
  return doing(work, async (act) => {
    const open = await takePostAt(act, id, version, 'changePosts');
    must(mayMoveTo(open.facts, to));
    return changePost(act, {
      open,
      change: { stage: to },
      deed: 'put at stage',
      detail: { from: open.post.stage, to },
      undoneAs: changeWords({ kind: 'stage', stage: to }, open.post.title),
    });
  });
}

/** Sets a post aside with a reason. A scheduled one does not leave any more. */
export function setPostAside(work: Work, id: string, version: number, reason: string): Promise<Result<WriteOutcome>> {
  return doing(work, async (act) => {
    const open = await takePostAt(act, id, version, 'changePosts');
    const undoneAs = changeWords({ kind: 'setAside', reason }, open.post.title);
    return changePost(act, { ...settingAside(open, reason), undoneAs });
  });
}

/** What setting a post aside writes; refused without a reason. */
export function settingAside(open: OpenPost, reason: string): PostWrite {
  const { post } = open;
  must(mayLeavePlan(open.facts));
  if (post.stage === 'setAside') refused({ code: 'setAside', message: 'It is set aside already.' });
  const why = reason.trim();
  mustFit(why, TEXT_LIMITS.reason, 'Reason', 'reason');
  if (why === '')
    refused({ code: 'noReason', field: 'reason', message: 'Say why, in a few words: it is looked back at later.' });
  const stageBefore = post.stage === 'scheduled' ? 'ready' : post.stage;
  return { open, change: { stage: 'setAside', stageBefore, setAsideReason: why }, deed: 'set aside' };
}

/** Brings a post back to the stage it had before it was set aside. */
export function bringPostBack(work: Work, id: string, version: number): Promise<Result<WriteOutcome>> {
  return doing(work, async (act) => {
    const open = await takePostAt(act, id, version, 'changePosts');
    if (open.post.stage !== 'setAside') refused({ code: 'notAside', message: 'This post is not set aside.' });
    const stage = open.post.stageBefore ?? 'drafting';
    return changePost(act, {
      open,
      change: { stage, stageBefore: null, setAsideReason: '' },
      deed: 'brought back',
      undoneAs: `Brought back ${quoted(open.post.title)}`,
    });
  });
}

/** Deletes a post that is not published. It can be restored. A scheduled one does not leave any more. */
export function deletePost(work: Work, id: string, version: number): Promise<Result<WriteOutcome>> {
  return doing(work, async (act) => {
    const open = await takePostAt(act, id, version, 'changePosts');
    must(mayLeavePlan(open.facts));
    const undoneAs = `Deleted ${quoted(open.post.title)}`;
    return changePost(act, { open, change: { deletedAt: act.now }, deed: 'deleted', undoneAs });
  });
}

/** Brings a deleted post back. */
export function restorePost(work: Work, id: string): Promise<Result<true>> {
  return doing(work, async (act) => {
    const open = await takePost(act, id, 'changePosts', { deleted: true });
    const undoneAs = `Restored ${quoted(open.post.title)}`;
    if (open.post.deletedAt !== null)
      await changePost(act, { open, change: { deletedAt: null }, deed: 'restored', undoneAs });
    return true as const;
  });
}

/** Puts a published post into the archive, out of the calendar’s sight, or restores it from there. */
export function archivePost(work: Work, id: string, version: number, archived: boolean): Promise<Result<WriteOutcome>> {
  return doing(work, async (act) => {
    const open = await takePostAt(act, id, version, 'changePosts');
    if (open.post.stage !== 'published')
      refused({ code: 'notPublished', message: 'Only what is published is archived. Set this aside, or delete it.' });
    return changePost(act, {
      open,
      change: { archivedAt: archived ? act.now : null },
      deed: archived ? 'archived' : 'unarchived',
      undoneAs: `${archived ? 'Archived' : 'Restored from the archive'} ${quoted(open.post.title)}`,
    });
  });
}
