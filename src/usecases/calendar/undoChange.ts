import { outcomeWords } from '@/core/posts/outcome';
import type { Refusal, Result } from '@/core/refusal';
import { mayLeavePlan, maySchedule } from '@/core/stages/moves';
import {
  followVersions,
  maybeChangeForUndo,
  noteUndone,
  type Before,
  type CalendarChange,
} from '@/data/calendar/calendarChanges';
import { listChannelsById, type Channel } from '@/data/brands/channels';
import { deleteExtractsOf } from '@/data/fanOut/postExtracts';
import { listVersions } from '@/data/posts/posts';
import { factsOf, takePosts, type OpenPost } from '../posts/takePosts';
import { mustMay } from '../rights/mustMay';
import { attempt, doing, must, refused, type Doing, type Work } from '../useCase';
import { writeWhatMayBe } from '../posts/writePosts';
import type { Asked, ChangeOutcome } from './changePosts';

/**
 * Undoes a change made on the calendar by the same person: the one named, or the last that was not undone. A post that was
 * changed since is left as it is and named.
 */
export async function undoChange(work: Work, brandId: string, changeId: string | null): Promise<Result<ChangeOutcome>> {
  return doing(work, async (act) => {
    await mustMay(act, 'changePosts', brandId);
    const change = await maybeChangeForUndo(act.tx, brandId, act.actorId, changeId);
    if (!change)
      refused({ code: 'nothingToUndo', message: 'There is nothing to undo of what you did on the calendar.' });
    return putBack(act, change);
  });
}

async function putBack(act: Doing, change: CalendarChange): Promise<ChangeOutcome> {
  const outcome: ChangeOutcome = { changeId: change.id, label: '', postIds: [], refused: [], notes: [] };
  const taken = await takePosts(
    act,
    change.items.map(({ postId }) => postId),
  );
  const channelIds = change.items.flatMap(({ before }) => before?.channelId ?? []);
  const channels = new Map((await listChannelsById(act.tx, channelIds)).map((channel) => [channel.id, channel]));
  const refuseOne = (postId: string, { message }: Refusal) => {
    const open = taken.get(postId);
    outcome.refused.push({ postId, title: open?.ok ? open.value.post.title : 'a post', message });
  };
  const asked: Asked[] = [];
  for (const { postId, version, before } of change.items) {
    const result = await attempt(async () => {
      const open = must(taken.get(postId)!);
      if (open.post.version !== version)
        refused({ code: 'stale', message: 'It was changed since, so it stays as it is.' });
      must(mayLeavePlan(open.facts));
      return before === null
        ? { write: { open, change: { deletedAt: act.now }, deed: 'deleted', detail: { undone: true } }, notes: [] }
        : puttingBack(act, open, before, channels.get(before.channelId) ?? open.channel);
    });
    if (result.ok) asked.push(result.value);
    else refuseOne(postId, result.refusal);
  }
  const results = await writeWhatMayBe(
    act,
    asked.map(({ write }) => write),
  );
  for (const [index, { write, notes }] of asked.entries()) {
    const { id, title } = write.open.post;
    const result = results[index]!;
    if (!result.ok) refuseOne(id, result.refusal);
    else {
      outcome.postIds.push(id);
      const told = result.value.mayBeOut || result.value.tookBack ? outcomeWords(result.value) : [];
      for (const message of [...told, ...notes]) outcome.notes.push({ postId: id, title, message });
    }
  }
  const unmade = change.items.filter(({ postId, before }) => before === null && outcome.postIds.includes(postId));
  if (unmade.length > 0)
    await deleteExtractsOf(
      act.tx,
      unmade.map(({ postId }) => postId),
      change,
    );
  await noteUndone(act.tx, change.id, act.now);
  await followVersions(act.tx, act.actorId, await versionsAfter(act, change, outcome.postIds));
  const undone = outcome.postIds.length;
  outcome.label = undone === 0 ? 'Nothing undone' : `Undone: ${change.label[0]!.toLowerCase()}${change.label.slice(1)}`;
  return outcome;
}

/** Where posts that were put back stood before the change that was undone, and where they stand now. */
async function versionsAfter(act: Doing, change: CalendarChange, postIds: readonly string[]) {
  const now = await listVersions(act.tx, postIds);
  return change.items.flatMap(({ postId, base }) => {
    const to = now.get(postId);
    return to === undefined || base === null ? [] : [{ postId, from: base, to }];
  });
}

/** What putting a post back writes: as it was, scheduled again where it was and still may be. */
function puttingBack(act: Doing, open: OpenPost, before: Before, channel: Channel): Asked {
  const change = { ...before };
  if (before.stage !== 'scheduled') return { write: { open, change, deed: 'put back' }, notes: [] };
  const isWaiting = open.post.stage === 'scheduled' && open.delivery !== undefined;
  const facts = factsOf({ ...open, channel, post: { ...open.post, ...before, stage: 'ready' } }, act.now);
  const due = maySchedule(isWaiting ? { ...facts, blocks: [], wants: [] } : facts);
  if (!due.ok)
    return {
      write: { open, change: { ...change, stage: 'ready' }, deed: 'put back' },
      notes: [`It is back, but not scheduled. ${due.refusal.message}`],
    };
  const when = isWaiting ? { retimedTo: due.value } : { leavesAt: due.value };
  return { write: { open, change, ...when, deed: 'put back' }, notes: [] };
}
