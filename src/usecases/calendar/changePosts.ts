import type { ChangeOutcome } from '@/core/calendar/changeOutcome';
import { outcomeWords } from '@/core/posts/outcome';
import { changeWords, CHANGE_LIMIT, SHIFT_LIMIT, type Change } from '@/core/calendar/change';
import { formatNote, formatOn } from '@/core/calendar/drop';
import { blocksOf } from '@/core/posts/readiness';
import type { Refusal, Result } from '@/core/refusal';
import { mayEdit, mayMoveTo, mayPlanFor, maySchedule } from '@/core/stages/moves';
import { addDays } from '@/core/time/days';
import { localOf } from '@/core/time/plan';
import { listChannelsById, type Channel } from '@/data/brands/channels';
import { addPosts, NOT_TAKEN_OVER, type NewPost } from '../posts/addPosts';
import { moving, type Move } from '../posts/planPosts';
import { takePosts, type OpenPost } from '../posts/takePosts';
import { settingAside } from '../posts/stages';
import { mustMay } from '../rights/mustMay';
import { changedPost, madePosts, noteChange, type PostItem } from '../undo/noteChange';
import { attempt, doing, must, notFound, refused, STALE, type Doing, type Work } from '../useCase';
import type { PostWrite } from '../posts/checkWrites';
import { writeWhatMayBe } from '../posts/writePosts';

/** A post that a change is asked for, at the version it was seen at. */
export interface ChangeTarget {
  id: string;
  version: number;
}

/**
 * Changes one or many posts on the calendar. Each is checked for itself: those that may not be changed are named with the
 * reason, the others are changed together, and the whole can be undone.
 *
 * @param brandId the brand whose calendar is open: the change is remembered there
 */
export async function changePosts(
  work: Work,
  brandId: string,
  targets: readonly ChangeTarget[],
  change: Change,
): Promise<Result<ChangeOutcome>> {
  const schedules = change.kind === 'stage' && change.stage === 'scheduled';
  const toMeasure = schedules ? targets.slice(0, CHANGE_LIMIT).map(({ id }) => id) : [];
  return doing(
    work,
    async (act) => {
      await mustMay(act, 'changePosts', brandId);
      checkChange(targets, change);
      const outcome: ChangeOutcome = { changeId: null, label: '', postIds: [], refused: [], notes: [] };
      const taken = await takePosts(
        act,
        targets.map(({ id }) => id),
        'changePosts',
      );
      const ground = await readGround(act, change);
      const asked: Asked[] = [];
      const copied: Copied[] = [];
      const refuseOne = (postId: string, refusal: Refusal) => {
        if (targets.length === 1) refused(refusal);
        const open = taken.get(postId);
        const title = open?.ok ? open.value.post.title : 'a post';
        outcome.refused.push({ postId, title, message: refusal.message });
      };
      for (const { id, version } of targets) {
        const result = await attempt(async () => {
          const open = must(taken.get(id)!);
          if (open.post.version !== version) refused(STALE);
          if (change.kind === 'copy') copied.push(copy(act, open, change, ground));
          else asked.push(writeOf(act, open, change, ground));
        });
        if (!result.ok) refuseOne(id, result.refusal);
      }
      const items = await writeAsked(act, asked, outcome, refuseOne);
      for (const { made, notes, from } of copied) {
        items.push(...madePosts(made.map(({ id }) => id)));
        for (const message of notes) outcome.notes.push({ postId: from.id, title: from.title, message });
      }
      await addCopies(act, copied);
      outcome.postIds = items.map(({ id }) => id);
      outcome.label = changeWords(change, items.length);
      if (items.length > 0) outcome.changeId = await noteChange(act, { brandId, label: outcome.label, items });
      return outcome;
    },
    toMeasure,
  );
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

/** What a change needs to know beside the posts. */
interface Ground {
  /** The channels it names. */
  channels: ReadonlyMap<string, Channel>;
}

async function readGround(act: Doing, change: Change): Promise<Ground> {
  const ids =
    change.kind === 'place' && change.channelId !== undefined
      ? [change.channelId]
      : change.kind === 'copy'
        ? (change.channelIds ?? [])
        : [];
  const channels = ids.length > 0 ? await listChannelsById(act.tx, ids) : [];
  return { channels: new Map(channels.map((channel) => [channel.id, channel])) };
}

function channelFor({ post }: OpenPost, id: string, { channels }: Ground): Channel {
  const channel = channels.get(id);
  if (!channel || channel.brandId !== post.brandId || channel.archived)
    refused({
      code: 'foreignChannel',
      field: 'channels',
      message: 'That channel belongs to another brand, or is archived. Choose among the channels of this brand.',
    });
  return channel;
}

/** What is asked of the writer for one post, and what the person is told beside. */
export interface Asked {
  write: PostWrite;
  notes: string[];
}

/**
 * Writes what is asked of posts, as far as each may be written, and puts what is told of it into the outcome.
 *
 * @param refuseOne told of each that may not be written
 * @returns what undoing puts back
 */
export async function writeAsked(
  act: Doing,
  asked: readonly Asked[],
  outcome: ChangeOutcome,
  refuseOne: (postId: string, refusal: Refusal) => void,
): Promise<PostItem[]> {
  const items: PostItem[] = [];
  const results = await writeWhatMayBe(
    act,
    asked.map(({ write }) => write),
  );
  for (const [index, { write, notes }] of asked.entries()) {
    const { post } = write.open;
    const result = results[index]!;
    if (!result.ok) {
      refuseOne(post.id, result.refusal);
      continue;
    }
    items.push(changedPost(post, result.value.after));
    for (const message of [...outcomeWords(result.value), ...notes])
      outcome.notes.push({ postId: post.id, title: post.title, message });
  }
  return items;
}

function writeOf(act: Doing, open: OpenPost, change: Exclude<Change, { kind: 'copy' }>, ground: Ground): Asked {
  const { post } = open;
  const edited = (fields: PostWrite['change'], deed: string, detail: object = {}): Asked => {
    must(mayEdit(open.facts));
    return { write: { open, change: fields, deed, detail }, notes: [] };
  };
  const filed = (fields: PostWrite['change'], deed: string): Asked => ({
    write: { open, change: fields, deed },
    notes: [],
  });
  switch (change.kind) {
    case 'place':
      return place(act, open, change, ground);
    case 'carry': {
      const to = change.places.find(({ id }) => id === post.id);
      if (!to) refused({ code: 'noPlace', message: 'It is not said where it goes.' });
      return place(act, open, { date: to.date, time: to.time }, ground);
    }
    case 'shift':
      if (post.date === null) refused({ code: 'noDate', message: 'It has no date to move from.' });
      return place(act, open, { date: addDays(post.date, change.days) }, ground);
    case 'time':
      if (post.date === null) refused({ code: 'noDate', message: 'It has no date, so it cannot have a time.' });
      return place(act, open, { date: post.date, time: change.time }, ground);
    case 'stage':
      return { write: puttingAt(open, change.stage), notes: [] };
    case 'title':
      return edited({ title: change.title }, 'renamed');
    case 'owner':
      return edited({ ownerId: change.ownerId }, 'handed over', { to: change.ownerId });
    case 'pillar':
      return filed({ pillarId: change.pillarId }, 'given a pillar');
    case 'campaign':
      return filed({ campaignId: change.campaignId }, 'put into a campaign');
    case 'setAside':
      return { write: settingAside(open, change.reason), notes: [] };
  }
}

function place(act: Doing, open: OpenPost, to: Move & { channelId?: string }, ground: Ground): Asked {
  if (to.channelId !== undefined && to.channelId !== open.post.channelId)
    return movingToChannel(act, open, to, channelFor(open, to.channelId, ground));
  const write = moving(act, open, to);
  return { write, notes: write.retimedTo === undefined ? [] : [`It will be sent then, at ${write.change.time}.`] };
}

/** What moving a post to another channel of its brand writes. Its words stay; what that channel’s rules do not take is told. */
export function movingToChannel(act: Pick<Doing, 'now'>, open: OpenPost, to: Move, channel: Channel): Asked {
  const { post, brand, facts, pictures } = open;
  must(mayEdit(facts));
  if (post.stage === 'setAside') refused({ code: 'setAside', message: 'It is set aside. Bring it back first.' });
  const plan = { date: to.date, time: to.date === null ? null : to.time === undefined ? post.time : to.time };
  must(mayPlanFor(facts, plan, localOf(act.now, brand.zone).date, brand.zone));
  const format = formatOn(channel.sheet, to.format ?? post.format);
  const stage = post.stage === 'scheduled' ? 'ready' : post.stage;
  const blocks = blocksOf({ ...post, format, pictures }, channel.sheet);
  const note = formatNote(channel.sheet, post.format, format);
  return {
    write: {
      open,
      change: { ...plan, channelId: channel.id, format, stage },
      deed: 'moved to another channel',
      detail: { from: post.channelId, to: channel.id, ...plan },
    },
    notes: [
      ...(note ? [note] : []),
      // What a post that was ready lacks is told as the reason why it is not.
      ...(stage === 'ready' ? blocks.slice(1) : blocks)
        .filter((block) => block.code !== 'noText' && block.code !== 'noPicture')
        .map((block) => block.message),
    ],
  };
}

/** What putting a taken post at a stage writes, scheduling it where that is the stage. */
function puttingAt(open: OpenPost, to: Extract<Change, { kind: 'stage' }>['stage']): PostWrite {
  if (to === 'scheduled') {
    const dueAt = must(maySchedule(open.facts));
    return { open, change: { stage: to }, leavesAt: dueAt, deed: 'scheduled', detail: { dueAt } };
  }
  must(mayMoveTo(open.facts, to));
  return { open, change: { stage: to }, deed: 'put at stage', detail: { from: open.post.stage, to } };
}

/** The copies of a post that are to be made. */
interface Copied {
  from: OpenPost['post'];
  made: NewPost[];
  notes: string[];
}

function copy(act: Doing, open: OpenPost, change: Extract<Change, { kind: 'copy' }>, ground: Ground): Copied {
  const { post, brand, pictures } = open;
  const date = post.date === null ? null : addDays(post.date, change.days);
  must(
    mayPlanFor(
      { stage: 'drafting', leaving: false },
      { date, time: date === null ? null : post.time },
      localOf(act.now, brand.zone).date,
      brand.zone,
    ),
  );
  const channels =
    change.channelIds === null
      ? [open.channel.archived ? refused(notFound('channel')) : open.channel]
      : [...new Set(change.channelIds)]
          .filter((channelId) => channelId !== post.channelId)
          .map((id) => channelFor(open, id, ground));
  if (channels.length === 0)
    refused({ code: 'noChannel', message: 'Choose a channel other than the one it is on.', field: 'channelIds' });
  const notes: string[] = [];
  const made = channels.map((channel): NewPost => {
    const format = formatOn(channel.sheet, post.format);
    const block = blocksOf({ ...post, format, pictures }, channel.sheet)[0];
    if (block) notes.push(block.message);
    return {
      ...post,
      id: act.ids(),
      channelId: channel.id,
      format,
      date,
      stage: 'drafting',
      ...NOT_TAKEN_OVER,
      createdAt: act.now,
      pictures,
    };
  });
  return { from: post, made, notes };
}

async function addCopies(act: Doing, copied: readonly Copied[]): Promise<void> {
  await addPosts(
    act,
    copied.flatMap(({ made }) => made),
  );
  await act.note(
    ...copied.flatMap(({ made, from }) =>
      made.map(({ id, brandId }) => ({
        brandId,
        subject: 'post' as const,
        subjectId: id,
        deed: 'copied',
        detail: { from: from.id },
      })),
    ),
  );
}
