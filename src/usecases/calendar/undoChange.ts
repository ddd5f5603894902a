import { outcomeWords } from '@/core/posts/outcome';
import type { Refusal, Result } from '@/core/refusal';
import { mayLeavePlan, maySchedule } from '@/core/stages/moves';
import {
  followVersions,
  maybeChangeForUndo,
  noteUndone,
  type CalendarChange,
  type PostState,
} from '@/data/calendar/calendarChanges';
import { listChannelsById, type Channel } from '@/data/brands/channels';
import { deleteExtractsOf } from '@/data/fanOut/postExtracts';
import { addSuggestions } from '@/data/pieces/pieces';
import { listVersions } from '@/data/posts/posts';
import { factsOf, takePosts, type OpenPost } from '../posts/takePosts';
import { mustMay } from '../rights/mustMay';
import { attempt, doing, must, refused, type Doing, type Work } from '../useCase';
import { writeWhatMayBe } from '../posts/writePosts';
import type { Asked, ChangeOutcome } from './changePosts';
import { changedFields, isSame, CHANGED_SINCE } from './sinceThen';
import { putStepsBack } from './putStepsBack';
import { stateOf } from './undoable';

/**
 * Undoes what the same person did: the change named, or the last that was not undone. Only what it changed is put back; a
 * post or step of which just that was changed since is left as it is and named.
 */
export async function undoChange(work: Work, brandId: string, changeId: string | null): Promise<Result<ChangeOutcome>> {
  return doing(work, async (act) => {
    await mustMay(act, 'changePosts', brandId);
    const change = await maybeChangeForUndo(act.tx, brandId, act.actorId, changeId);
    if (!change) refused({ code: 'nothingToUndo', message: 'There is nothing to undo of what you did here.' });
    return putBack(act, change);
  });
}

async function putBack(act: Doing, change: CalendarChange): Promise<ChangeOutcome> {
  const outcome: ChangeOutcome = { changeId: change.id, label: '', postIds: [], refused: [], notes: [] };
  await putPostsBack(act, change, outcome);
  const stepsBack = await putStepsBack(act, change.steps);
  outcome.postIds.push(...stepsBack.postIds);
  outcome.refused.push(...stepsBack.refused);
  const { suggested } = change;
  if (suggested && outcome.refused.length === 0) await addSuggestions(act.tx, suggested.pieceId, suggested.channelIds);
  await noteUndone(act.tx, change.id, act.now);
  await followVersions(act.tx, act.actorId, await versionsAfter(act, change, outcome.postIds));
  const undone = outcome.postIds.length + stepsBack.pieces;
  outcome.label = undone === 0 ? 'Nothing undone' : `Undone: ${change.label[0]!.toLowerCase()}${change.label.slice(1)}`;
  return outcome;
}

async function putPostsBack(act: Doing, change: CalendarChange, outcome: ChangeOutcome): Promise<void> {
  const taken = await takePosts(
    act,
    change.items.map(({ postId }) => postId),
    'changePosts',
    { deleted: true },
  );
  const channelIds = change.items.flatMap(({ before }) => before?.channelId ?? []);
  const channels = new Map((await listChannelsById(act.tx, channelIds)).map((channel) => [channel.id, channel]));
  const refuseOne = (postId: string, { message }: Refusal) => {
    const open = taken.get(postId);
    outcome.refused.push({ postId, title: open?.ok ? open.value.post.title : 'a post', message });
  };
  const asked: Asked[] = [];
  for (const { postId, version, before, after } of change.items) {
    const result = await attempt(async () => {
      const open = must(taken.get(postId)!);
      const fields = before && after ? changedFields(before, after) : [];
      const isAsLeft = before && after ? isSame(fields, stateOf(open.post), after) : open.post.version === version;
      const isGone = open.post.deletedAt !== null && !fields.includes('deletedAt');
      if (!isAsLeft || isGone) refused(CHANGED_SINCE);
      if (fields.length === 0 || fields.some((field) => !FILING.includes(field))) must(mayLeavePlan(open.facts));
      if (before === null)
        return {
          write: { open, change: { deletedAt: act.now }, deed: 'deleted', detail: { undone: true } },
          notes: [],
        };
      const back = Object.fromEntries(fields.map((field) => [field, before[field]])) as Partial<PostState>;
      return puttingBack(act, open, back, channels.get(before.channelId) ?? open.channel);
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
}

/** Where a post is filed: it may be put back also of what is published. */
const FILING: readonly string[] = ['pillarId', 'campaignId', 'archivedAt'];

/** Where posts that were put back stood before the change that was undone, and where they stand now. */
async function versionsAfter(act: Doing, change: CalendarChange, postIds: readonly string[]) {
  const now = await listVersions(act.tx, postIds);
  return change.items.flatMap(({ postId, base }) => {
    const to = now.get(postId);
    return to === undefined || base === null ? [] : [{ postId, from: base, to }];
  });
}

/** What says where and when a post leaves: put back, it has to be scheduled anew. */
const PLAN: readonly (keyof PostState)[] = ['stage', 'date', 'time', 'channelId', 'deletedAt'];

/** What putting a post back writes: the fields as they were, scheduled again where it was and still may be. */
function puttingBack(act: Doing, open: OpenPost, back: Partial<PostState>, channel: Channel): Asked {
  const stage = back.stage ?? open.post.stage;
  const isWaiting = open.post.stage === 'scheduled' && open.delivery !== undefined;
  const staysAsPlanned = isWaiting && !PLAN.some((field) => field in back);
  if (stage !== 'scheduled' || staysAsPlanned) return { write: { open, change: back, deed: 'put back' }, notes: [] };
  const facts = factsOf({ ...open, channel, post: { ...open.post, ...back, stage: 'ready' } }, act.now);
  const allowed = open.may('send');
  const due = allowed.ok ? maySchedule(isWaiting ? { ...facts, blocks: [], wants: [] } : facts) : allowed;
  if (!due.ok)
    return {
      write: { open, change: { ...back, stage: 'ready' }, deed: 'put back' },
      notes: [`It is back, but not scheduled. ${due.refusal.message}`],
    };
  const when = isWaiting ? { retimedTo: due.value } : { leavesAt: due.value };
  return { write: { open, change: { ...back, stage }, ...when, deed: 'put back' }, notes: [] };
}
