import { outcomeWords } from '@/core/posts/outcome';
import type { Refusal } from '@/core/refusal';
import type { Deed } from '@/core/rights/may';
import { mayLeavePlan, maySchedule } from '@/core/stages/moves';
import { listChannelsById, type Channel } from '@/data/brands/channels';
import { listVersions } from '@/data/posts/posts';
import type { Direction, NotedChange } from '@/data/undo/changes';
import type { Asked } from '../calendar/changePosts';
import { factsOf, takePosts, type OpenPost } from '../posts/takePosts';
import { OF_PUBLISHED, SAID_OF_PUBLISHED } from '../posts/checkWrites';
import { writeWhatMayBe } from '../posts/writePosts';
import { attempt, must, refused, type Doing } from '../useCase';
import { takeExtractsAway } from './extractsOfPosts';
import { stateOf } from './noteChange';
import type { PostState } from './postState';
import { changedFields, CHANGED_SINCE, isSame } from './sinceThen';
import { nothingPut, type PutOutcome, type Putting } from './subject';

/** Puts posts into another state, each by the one writer of posts; one that the change made is deleted, and restored. */
export async function putPosts(
  act: Doing,
  change: NotedChange,
  puttings: readonly Putting<PostState>[],
  direction: Direction,
): Promise<PutOutcome> {
  const outcome = nothingPut();
  const taken = await takePosts(
    act,
    puttings.map(({ item }) => item.id),
    deedOf(puttings),
    { deleted: true },
  );
  const channelIds = puttings.flatMap(({ to }) => to?.channelId ?? []);
  const channels = new Map((await listChannelsById(act.tx, channelIds)).map((channel) => [channel.id, channel]));
  const refuseOne = (postId: string, { message }: Refusal) => {
    const open = taken.get(postId);
    outcome.refused.push({ postId, title: open?.ok ? open.value.post.title : 'a post', message });
  };
  const asked: Asked[] = [];
  for (const { item, from, to } of puttings) {
    const result = await attempt(async () => {
      const open = must(taken.get(item.id)!);
      if (from === null || to === null) return putMade(act, open, item, direction);
      const fields = changedFields(from, to);
      const isGone = open.post.deletedAt !== null && !fields.includes('deletedAt');
      if (!isSame(fields, stateOf(open.post), from) || isGone) refused(CHANGED_SINCE);
      const takesBackWord = from.stage === 'published' && to.stage !== 'published';
      const isPublished = from.stage === 'published' && to.stage === 'published';
      const correctsWord =
        isPublished && fields.every((field) => [...OF_PUBLISHED, ...SAID_OF_PUBLISHED].includes(field));
      if (!takesBackWord && !correctsWord && !fields.every((field) => OF_PUBLISHED.includes(field)))
        must(mayLeavePlan(open.facts));
      const back = Object.fromEntries(fields.map((field) => [field, to[field]])) as Partial<PostState>;
      const put = puttingBack(act, open, back, channels.get(to.channelId) ?? open.channel);
      // That it is out was a person's word both times.
      const isSaidAgain = to.stage === 'published' && from.stage !== 'published';
      return {
        ...put,
        write: {
          ...put.write,
          ...(takesBackWord && { takesBackWord }),
          ...(correctsWord && fields.some((field) => SAID_OF_PUBLISHED.includes(field)) && { correctsWord }),
          ...(isSaidAgain && { out: 'said' as const }),
        },
      };
    });
    if (result.ok) asked.push(result.value);
    else refuseOne(item.id, result.refusal);
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
  if (direction === 'undo') {
    const unmade = puttings.flatMap(({ item }) =>
      item.before === null && outcome.postIds.includes(item.id) ? [item.id] : [],
    );
    outcome.besides = await takeExtractsAway(act, unmade, change);
  }
  const versions = await listVersions(act.tx, outcome.postIds);
  outcome.moved = puttings.flatMap(({ item }) => {
    const to = versions.get(item.id);
    const from = direction === 'undo' ? item.base : item.version;
    return to === undefined || from === undefined ? [] : [{ id: item.id, from, to }];
  });
  return outcome;
}

/** What whoever puts posts into another state has to be allowed. */
export const deedOf = (puttings: readonly Pick<Putting<PostState>, 'from' | 'to'>[]): Deed =>
  puttings.every(({ from, to }) => from && to && changedFields(from, to).every((field) => field === 'signOff'))
    ? 'signOff'
    : 'changePosts';

/** Deletes a post that the change made, as long as nobody touched it, or restores it. */
function putMade(act: Doing, open: OpenPost, { base, version }: Putting['item'], direction: Direction): Asked {
  if (open.post.version !== (direction === 'undo' ? version : base)) refused(CHANGED_SINCE);
  const deletedAt = direction === 'undo' ? act.now : null;
  if ((open.post.deletedAt === null) === (deletedAt === null)) refused(CHANGED_SINCE);
  // One that came in as published was said to be by whoever brought it in.
  const takesBackWord = open.post.stage === 'published';
  if (deletedAt !== null && !takesBackWord) must(mayLeavePlan(open.facts));
  const deed = deletedAt === null ? 'restored' : 'deleted';
  const write = { open, change: { deletedAt }, deed, detail: { undone: direction === 'undo' } };
  return { write: { ...write, ...(takesBackWord && { takesBackWord }) }, notes: [] };
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
