import { changeWords, CHANGE_LIMIT, SHIFT_LIMIT, type Change } from '@/core/calendar/change';
import { formatNote, formatOn } from '@/core/calendar/drop';
import { readTitle, TEXT_LIMITS } from '@/core/pieces/piece';
import { blocksOf } from '@/core/posts/readiness';
import type { Refusal, Result } from '@/core/refusal';
import { mayEdit, mayLeavePlan, mayMoveTo, mayPlanFor, maySchedule } from '@/core/stages/moves';
import { addDays } from '@/core/time/days';
import { localOf } from '@/core/time/plan';
import {
  followVersions,
  insertChange,
  maybeChangeForUndo,
  noteUndone,
  type Before,
  type CalendarChange,
  type ChangeItem,
} from '@/data/changes';
import { retimeDelivery } from '@/data/deliveries';
import { copyPictures } from '@/data/media';
import { listVersions } from '@/data/posts';
import { existsTheme } from '@/data/themes';
import { worksForBrand } from '@/data/people';
import { addPosts } from './adding';
import { channelsOfBrand } from './pieces';
import { placeOpenPost } from './planning';
import { changePost, takePost, takePostAt, type OpenPost } from './posts';
import { copyIntoDelivery } from './scheduling';
import { unschedule } from './stages';
import { attempt, doing, must, mustFit, mustWorkFor, notFound, refused, STALE, type Doing, type Work } from './work';

/** A post that a change is asked for, at the version it was seen at. */
export interface ChangeTarget {
  id: string;
  version: number;
}

/** What came of a change. */
export interface ChangeOutcome {
  /** To undo it by; null when nothing was changed. */
  changeId: string | null;
  /** What was done and to how many: “Moved 3 posts”. */
  label: string;
  /** Posts that were changed or made. */
  postIds: string[];
  /** Posts that were not, and why. */
  refused: { postId: string; title: string; message: string }[];
  /** What else happened to posts that were changed. */
  notes: { postId: string; title: string; message: string }[];
}

/**
 * Changes one or many posts on the calendar. Each is checked for itself: those that may not be changed are named with the
 * reason, the others are changed together, and the whole can be undone.
 *
 * @param brandId the brand whose calendar is open: the change is remembered there
 */
export function changePosts(
  work: Work,
  brandId: string,
  targets: readonly ChangeTarget[],
  change: Change,
): Promise<Result<ChangeOutcome>> {
  return doing(work, async (act) => {
    await mustWorkFor(act, brandId);
    checkChange(targets, change);
    const items: ChangeItem[] = [];
    const outcome: ChangeOutcome = { changeId: null, label: '', postIds: [], refused: [], notes: [] };
    for (const target of targets) {
      let title = 'a post';
      const result = await attempt(async () => {
        const open = await takePostAt(act, target.id, target.version);
        title = open.post.title;
        return changeOne(act, open, change);
      });
      if (!result.ok) {
        outcome.refused.push({ postId: target.id, title, message: result.refusal.message });
        continue;
      }
      items.push(...result.value.items);
      for (const message of result.value.notes) outcome.notes.push({ postId: target.id, title, message });
    }
    if (targets.length === 1 && outcome.refused.length === 1)
      refused(await refusalOf(act, targets[0]!, outcome.refused[0]!.message));
    outcome.postIds = items.map((item) => item.postId);
    outcome.label = changeWords(change, items.length);
    if (items.length > 0) {
      outcome.changeId = act.ids();
      const { changeId: id, label } = outcome;
      await insertChange(act.tx, { id, brandId, actorId: act.actorId, at: act.now, label, items });
    }
    return outcome;
  });
}

/** A single post that was refused is refused as such, so that whoever asked can tell a stale version from a rule. */
async function refusalOf(act: Doing, target: ChangeTarget, message: string): Promise<Refusal> {
  const present = await attempt(() => takePost(act, target.id));
  if (!present.ok) return present.refusal;
  return present.value.post.version === target.version ? { code: 'refused', message } : STALE;
}

function checkChange(targets: readonly ChangeTarget[], change: Change): void {
  if (targets.length === 0) refused({ code: 'nothing', message: 'No post is picked. Pick one first.' });
  if (targets.length > CHANGE_LIMIT)
    refused({
      code: 'tooMany',
      message: `${targets.length} posts are more than are changed at once (${CHANGE_LIMIT}). Pick fewer.`,
    });
  if ((change.kind === 'shift' || change.kind === 'copy') && Math.abs(change.days) > SHIFT_LIMIT)
    refused({ code: 'tooFar', field: 'days', message: `Posts are moved by ${SHIFT_LIMIT} days at most.` });
}

interface Changed {
  items: ChangeItem[];
  notes: string[];
}

async function changeOne(act: Doing, open: OpenPost, change: Change): Promise<Changed> {
  const { post } = open;
  const changed = (notes: string[] = []): Changed => ({
    items: [{ postId: post.id, before: beforeOf(open), base: post.version, version: post.version + 1 }],
    notes,
  });
  switch (change.kind) {
    case 'place':
      return changed(await place(act, open, change));
    case 'shift':
      if (post.date === null) refused({ code: 'noDate', message: 'It has no date to move from.' });
      return changed(await place(act, open, { date: addDays(post.date, change.days) }));
    case 'time':
      if (post.date === null) refused({ code: 'noDate', message: 'It has no date, so it cannot have a time.' });
      return changed(await place(act, open, { date: post.date, time: change.time }));
    case 'stage':
      return changed(await putAt(act, open, change.stage));
    case 'title':
      must(mayEdit(open.facts));
      await changePost(act, open, { title: must(readTitle(change.title)) }, 'renamed');
      return changed();
    case 'owner':
      must(mayEdit(open.facts));
      if (!(await worksForBrand(act.tx, change.ownerId, post.brandId)))
        refused({ code: 'noOwner', field: 'ownerId', message: 'Whom you hand it to does not work for this brand.' });
      await changePost(act, open, { ownerId: change.ownerId }, 'handed over', { to: change.ownerId });
      return changed();
    case 'pillar':
      await mustBeTheme(act, 'pillars', open, change.pillarId);
      await changePost(act, open, { pillarId: change.pillarId }, 'given a pillar');
      return changed();
    case 'campaign':
      await mustBeTheme(act, 'campaigns', open, change.campaignId);
      await changePost(act, open, { campaignId: change.campaignId }, 'put into a campaign');
      return changed();
    case 'setAside': {
      must(mayLeavePlan(open.facts));
      if (post.stage === 'setAside') refused({ code: 'setAside', message: 'It is set aside already.' });
      const reason = change.reason.trim();
      mustFit(reason, TEXT_LIMITS.reason, 'Reason', 'reason');
      if (reason === '')
        refused({ code: 'noReason', field: 'reason', message: 'Say why, in a few words: it is looked back at later.' });
      const unscheduled = await unschedule(act, open);
      const stageBefore = post.stage === 'scheduled' ? 'ready' : post.stage;
      await changePost(act, open, { stage: 'setAside', stageBefore, setAsideReason: reason }, 'set aside');
      return changed(unscheduled ? [UNSCHEDULED] : []);
    }
    case 'copy':
      return copy(act, open, change);
  }
}

const UNSCHEDULED = 'It is not scheduled any more and will not leave.';

async function place(
  act: Doing,
  open: OpenPost,
  to: Omit<Extract<Change, { kind: 'place' }>, 'kind'>,
): Promise<string[]> {
  if (to.channelId !== undefined && to.channelId !== open.post.channelId) return moveToChannel(act, open, to);
  const { unscheduled, retimed, plan } = await placeOpenPost(act, open, to);
  if (unscheduled) return [UNSCHEDULED];
  return retimed ? [`It leaves then, at ${plan.time}.`] : [];
}

/** Moves a post to another channel of its brand. Its words stay; what that channel's rules do not take is told. */
export async function moveToChannel(
  act: Doing,
  open: OpenPost,
  to: Omit<Extract<Change, { kind: 'place' }>, 'kind'>,
): Promise<string[]> {
  const { post, brand, facts, pictures } = open;
  must(mayEdit(facts));
  if (post.stage === 'setAside') refused({ code: 'setAside', message: 'It is set aside. Bring it back first.' });
  const [channel] = await channelsOfBrand(act, post.brandId, [to.channelId!]);
  if (!channel) refused(notFound('channel'));
  const plan = { date: to.date, time: to.date === null ? null : to.time === undefined ? post.time : to.time };
  must(mayPlanFor(facts, plan, localOf(act.now, brand.zone).date, brand.zone));
  const format = formatOn(channel.sheet, to.format ?? post.format);
  const blocks = blocksOf({ ...post, format, pictures }, channel.sheet);
  const unscheduled = await unschedule(act, open);
  const stood = unscheduled ? 'ready' : post.stage;
  const stage = stood === 'ready' && blocks.length > 0 ? 'making' : stood;
  await changePost(act, open, { ...plan, channelId: channel.id, format, stage }, 'moved to another channel', {
    from: post.channelId,
    to: channel.id,
    ...plan,
  });
  const note = formatNote(channel.sheet, post.format, format);
  return [
    ...(unscheduled ? [UNSCHEDULED] : []),
    ...(note ? [note] : []),
    ...blocks.filter((block) => block.code !== 'noText' && block.code !== 'noPicture').map((block) => block.message),
  ];
}

/** Puts a taken post at a stage, scheduling it where that is the stage. @returns what else happened */
export async function putAt(
  act: Doing,
  open: OpenPost,
  to: Extract<Change, { kind: 'stage' }>['stage'],
): Promise<string[]> {
  if (to === 'scheduled') {
    const dueAt = must(maySchedule(open.facts));
    await copyIntoDelivery(act, open, dueAt);
    await changePost(act, open, { stage: 'scheduled' }, 'scheduled', { dueAt });
    return [];
  }
  must(mayMoveTo(open.facts, to));
  const unscheduled = await unschedule(act, open);
  await changePost(act, open, { stage: to }, 'put at stage', { from: open.post.stage, to });
  return unscheduled ? [UNSCHEDULED] : [];
}

async function mustBeTheme(
  act: Doing,
  table: 'pillars' | 'campaigns',
  open: OpenPost,
  id: string | null,
): Promise<void> {
  if (id !== null && !(await existsTheme(act.tx, table, open.post.brandId, id)))
    refused({ code: 'otherBrand', message: 'That belongs to another brand.' });
}

async function copy(act: Doing, open: OpenPost, change: Extract<Change, { kind: 'copy' }>): Promise<Changed> {
  const { post, brand } = open;
  const date = post.date === null ? null : addDays(post.date, change.days);
  must(
    mayPlanFor(
      { stage: 'drafting', leaving: false },
      { date, time: null },
      localOf(act.now, brand.zone).date,
      brand.zone,
    ),
  );
  const wanted = (change.channelIds ?? [post.channelId]).filter(
    (channelId) => change.channelIds === null || channelId !== post.channelId,
  );
  const channels = await channelsOfBrand(act, post.brandId, wanted);
  if (channels.length === 0)
    refused({ code: 'noChannel', message: 'Choose a channel other than the one it is on.', field: 'channelIds' });
  const notes: string[] = [];
  const made = channels.map((channel) => {
    const format = formatOn(channel.sheet, post.format);
    const block = blocksOf({ ...post, format, pictures: open.pictures }, channel.sheet)[0];
    if (block) notes.push(block.message);
    return {
      ...post,
      id: act.ids(),
      channelId: channel.id,
      format,
      date,
      stage: 'drafting' as const,
      publishedAt: null,
      address: '',
      seriesId: null,
      seriesNumber: null,
      createdAt: act.now,
    };
  });
  await addPosts(act, made);
  for (const { id } of made) {
    await copyPictures(act.tx, post.id, id, act.now);
    await act.note({
      brandId: post.brandId,
      subject: 'post',
      subjectId: id,
      deed: 'copied',
      detail: { from: post.id },
    });
  }
  return { items: made.map(({ id }) => ({ postId: id, before: null, base: null, version: 1 })), notes };
}

const beforeOf = ({ post }: OpenPost): Before => ({
  date: post.date,
  time: post.time,
  stage: post.stage,
  stageBefore: post.stageBefore,
  setAsideReason: post.setAsideReason,
  ownerId: post.ownerId,
  pillarId: post.pillarId,
  campaignId: post.campaignId,
  channelId: post.channelId,
  format: post.format,
  title: post.title,
});

/**
 * Undoes a change made on the calendar by the same person: the one named, or the last that was not undone. A post that was
 * changed since is left as it is and named.
 */
export function undoChange(work: Work, brandId: string, changeId: string | null): Promise<Result<ChangeOutcome>> {
  return doing(work, async (act) => {
    await mustWorkFor(act, brandId);
    const change = await maybeChangeForUndo(act.tx, brandId, act.actorId, changeId);
    if (!change)
      refused({ code: 'nothingToUndo', message: 'There is nothing (more) to undo of what you did on the calendar.' });
    return putBack(act, change);
  });
}

async function putBack(act: Doing, change: CalendarChange): Promise<ChangeOutcome> {
  const outcome: ChangeOutcome = { changeId: change.id, label: '', postIds: [], refused: [], notes: [] };
  for (const item of change.items) {
    let title = 'a post';
    const result = await attempt(async () => {
      const open = await takePost(act, item.postId);
      title = open.post.title;
      if (open.post.version !== item.version)
        refused({ code: 'stale', message: 'It was changed since, so it stays as it is.' });
      return item.before === null ? unmake(act, open) : restore(act, open, item.before);
    });
    if (!result.ok) outcome.refused.push({ postId: item.postId, title, message: result.refusal.message });
    else {
      outcome.postIds.push(item.postId);
      if (result.value !== null) outcome.notes.push({ postId: item.postId, title, message: result.value });
    }
  }
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

async function unmake(act: Doing, open: OpenPost): Promise<null> {
  must(mayLeavePlan(open.facts));
  await unschedule(act, open);
  await changePost(act, open, { deletedAt: act.now }, 'deleted', { undone: true });
  return null;
}

/** @returns a note where it could not be put back whole */
async function restore(act: Doing, open: OpenPost, before: Before): Promise<string | null> {
  const { post, delivery } = open;
  must(mayLeavePlan({ ...open.facts, stage: post.stage }));
  const isScheduled = post.stage === 'scheduled' && delivery !== undefined;
  if (before.stage !== 'scheduled') {
    await unschedule(act, open);
    await changePost(act, open, { ...before }, 'put back');
    return null;
  }
  const due = maySchedule({ ...open.facts, date: before.date, time: before.time });
  if (isScheduled && due.ok) {
    if (!(await retimeDelivery(act.tx, delivery.id, due.value)))
      refused({ code: 'leaving', message: 'It is leaving right now.' });
    await changePost(act, open, { ...before }, 'put back');
    return null;
  }
  await unschedule(act, open);
  await changePost(act, open, { ...before, stage: 'ready' }, 'put back');
  const again = await takePost(act, post.id);
  const dueAgain = maySchedule(again.facts);
  if (!dueAgain.ok) return `It is back, but not scheduled. ${dueAgain.refusal.message}`;
  await copyIntoDelivery(act, again, dueAgain.value);
  await changePost(act, again, { stage: 'scheduled' }, 'scheduled', { dueAt: dueAgain.value });
  return null;
}
