import { mayBeOut } from '@/core/delivery/delivery';
import { makeParcel, measuresOf } from '@/core/delivery/parcel';
import { lostFile } from '@/core/media/lost';
import { isVideo } from '@/core/media/video';
import { readTitle } from '@/core/pieces/piece';
import type { WriteOutcome } from '@/core/posts/outcome';
import { blocksOf, type Block } from '@/core/posts/readiness';
import { headlineAfter } from '@/core/posts/oneTitle';
import { readPictures, readWords } from '@/core/posts/readPost';
import { refuse, type Refusal, type Result } from '@/core/refusal';
import { FORMAT_LABELS, formatRule } from '@/core/rulesheets/types';
import { dueInstant, type Instant } from '@/core/time/plan';
import { listChannelsById, type Channel } from '@/data/brands/channels';
import type { NewDelivery } from '@/data/delivery/deliveries';
import type { Picture } from '@/data/media/media';
import { listWorkersOf } from '@/data/people/people';
import type { Post, PostChange } from '@/data/posts/posts';
import { listThemeBrands } from '@/data/brands/themes';
import { LEAVING, refusePublished, type OpenPost } from './takePosts';
import { readChooser, type MinuteChooser } from './chooseMinutes';
import { attempt, must, refused, type Acting } from '../useCase';

/** What is asked of the one writer for one post. */
export interface PostWrite {
  open: OpenPost;
  /** What is to be otherwise; pictures are given whole, in their order. */
  change: PostChange & { pictures?: readonly Picture[] };
  /** For the history. */
  deed: string;
  detail?: object;
  /** How it is called where the person can undo it by itself: “Moved “Rings””; absent where it cannot be, or goes with others. */
  undoneAs?: string;
  /** Why it cannot be undone, which is told to whoever tries. */
  final?: string;
  /** Takes back a person’s word that it is out: it is published no longer. A network’s word is not taken back. */
  takesBackWord?: true;
  /** Corrects a person’s word where and when it went out. A network’s word is not corrected. */
  correctsWord?: true;
  /** Takes a copy of the post as it is after the change, which leaves at that instant. Its stage has to be scheduled. */
  leavesAt?: Instant;
  /** That instant is now, as somebody wants it: no other minute is chosen. */
  leavesNow?: true;
  /** The copy that waits to leave stays, and leaves at that instant. */
  retimedTo?: Instant;
  /**
   * It is out, by a network’s word (`told`) or a person’s (`said`): what is out is held against no rule any more. Its stage
   * has to be published. After a person’s word nothing more is sent or asked about.
   */
  out?: 'told' | 'said';
}

/** A write that was checked and may be carried out. */
export interface CheckedWrite extends WriteOutcome {
  write: PostWrite;
  after: Post;
  channel: Channel;
  pictures: readonly Picture[];
  fields: (keyof PostChange)[];
  withdraws: string | null;
  retimes: { id: string; dueAt: Instant } | null;
  copies: NewDelivery | null;
}

/** What of a published post may still change: where it is filed, not what it is. */
export const OF_PUBLISHED: readonly string[] = ['archivedAt', 'notSent', 'pillarId', 'campaignId', 'madeOf'];
/** What a person says of a post that went out without Bimlo. */
export const SAID_OF_PUBLISHED: readonly string[] = ['address', 'publishedAt', 'date', 'time'];

/** Checks writes against all that must hold of a post. @returns in their order, each as it may be carried out, or why not */
export async function checkWrites(act: Acting, writes: readonly PostWrite[]): Promise<Result<CheckedWrite>[]> {
  const ground = await readGround(act, writes);
  return Promise.all(writes.map((write) => attempt(async () => checkOne(act, write, ground))));
}

/** What writes are checked against beside the posts themselves. */
interface Ground {
  channels: ReadonlyMap<string, Channel>;
  /** Who works where, as `brand person`. */
  workers: ReadonlySet<string>;
  /** Pillars and campaigns, as `brand field id`. */
  themes: ReadonlySet<string>;
  minuteOf: MinuteChooser;
}

async function readGround(act: Acting, writes: readonly PostWrite[]): Promise<Ground> {
  const { tx } = act;
  const given = (field: 'channelId' | 'ownerId' | 'pillarId' | 'campaignId') => [
    ...new Set(
      writes.flatMap(({ change, open }) => {
        const value = change[field];
        return value && value !== open.post[field] ? [value] : [];
      }),
    ),
  ];
  const [channelIds, ownerIds] = [given('channelId'), given('ownerId')];
  const [pillarIds, campaignIds] = [given('pillarId'), given('campaignId')];
  const channels = channelIds.length > 0 ? await listChannelsById(tx, channelIds) : [];
  const workers = ownerIds.length > 0 ? await listWorkersOf(tx, ownerIds) : [];
  const themes = pillarIds.length + campaignIds.length > 0 ? await listThemeBrands(tx, pillarIds, campaignIds) : [];
  const channelsById = new Map(channels.map((channel) => [channel.id, channel]));
  return {
    channels: channelsById,
    workers: new Set(workers.map(({ brandId, personId }) => `${brandId} ${personId}`)),
    themes: new Set(themes.map(({ brandId, kind, id }) => `${brandId} ${kind} ${id}`)),
    minuteOf: await readChooser(
      act,
      writes.filter(isScheduledNow).map(({ open, change }) => ({
        ...open,
        post: { ...open.post, ...fieldsOf(change) },
        channel: channelsById.get(change.channelId ?? '') ?? open.channel,
      })),
    ),
  };
}

/** Whether a write lets a post wait to leave that did not, and not at once, which is this very minute. */
const isScheduledNow = ({ open, leavesAt, leavesNow }: PostWrite): boolean =>
  leavesAt !== undefined && leavesNow !== true && open.post.stage !== 'scheduled';

const fieldsOf = ({ pictures: _pictures, ...fields }: PostWrite['change']): PostChange => fields;

function checkOne(act: Acting, write: PostWrite, ground: Ground): CheckedWrite {
  const { open, change } = write;
  const { post, delivery } = open;
  if (write.takesBackWord || write.correctsWord) mustBeOutByWord(open);
  const mayChange = write.correctsWord ? [...OF_PUBLISHED, ...SAID_OF_PUBLISHED] : OF_PUBLISHED;
  const isKept = post.stage === 'published' && !write.takesBackWord;
  if (isKept && Object.keys(change).some((field) => !mayChange.includes(field))) must(refusePublished());
  if (changesWhatLeaves(write)) must(open.may('send'));
  const channel = channelAfter(open, change, ground);
  if (!write.out) mustBeOfItsBrand(open, change, channel, ground);
  const read = write.out ? { ...change } : { ...change, ...must(readWords(change, channel.sheet)) };
  // A post without a title of its own has its piece's.
  if (change.title !== undefined)
    read.title = must(readTitle(change.title.trim() === '' ? open.pieceTitle : change.title));
  if (change.headline === undefined && !write.out && !write.correctsWord) {
    const isOther = (change.format ?? post.format) !== post.format || channel.id !== post.channelId;
    const to = { sheet: channel.sheet, format: change.format ?? post.format, isOther };
    const headline = headlineAfter(post, { title: read.title ?? post.title }, to);
    if (headline !== post.headline) read.headline = headline;
  }
  const { pictures: given, ...fields } = read;
  const pictures = given === undefined ? open.pictures : write.out ? given : must(readPictures(given));
  const after: Post = { ...post, ...fields };
  const chosen = isScheduledNow(write) ? ground.minuteOf({ ...open, post: after, channel }) : null;
  if (chosen) {
    const { time, until, windowFrom } = chosen;
    Object.assign(fields, { time, until, windowFrom });
    Object.assign(after, { time, until, windowFrom });
  }
  if (change.parts && !write.out) mustShowOwnPictures(after, pictures);
  if (
    !write.out &&
    (change.format !== undefined || change.channelId !== undefined) &&
    !formatRule(channel.sheet, after.format)
  )
    refused({
      code: 'format',
      field: 'format',
      message: `${channel.sheet.name} takes no ${FORMAT_LABELS[after.format]}. Choose one of: ${channel.sheet.formats.map((rule) => FORMAT_LABELS[rule.format]).join(', ')}.`,
    });
  mustBeRealTime(open, after);

  const content = { ...after, pictures };
  let unscheduled = false;
  let withdraws: string | null = null;
  let retimes: CheckedWrite['retimes'] = null;
  let copies: NewDelivery | null = null;
  const current = delivery && delivery.state !== 'sent' ? delivery : undefined;
  if (current && (after.stage !== 'scheduled' || after.deletedAt !== null || write.leavesAt !== undefined)) {
    if (open.facts.leaving) refused(LEAVING);
    if (write.out !== 'said') {
      withdraws = current.id;
      unscheduled = write.leavesAt === undefined;
    }
  }
  if (after.stage === 'scheduled' && after.deletedAt !== null) after.stage = 'ready';
  if (write.leavesAt !== undefined) {
    const lost = pictures.find(({ sha256 }) => act.lost.has(sha256));
    if (lost) must(refuse('lostFile', lostFile(lost.fileName), 'pictures'));
    if (act.isMeasured && pictures.some((picture) => !isVideo(picture) && !picture.rendered))
      must(refuse('notMeasured', 'A picture was just changed. Try again in a moment.', 'pictures'));
    mustBeFit(blocksOf(content, channel.sheet));
    copies = copyOf(act, content, channel, chosen?.dueAt ?? write.leavesAt);
  } else if (write.retimedTo !== undefined) {
    if (!current || open.facts.leaving) refused(LEAVING);
    mustBeFit(blocksOfCopy(current, channel));
    if (current.unsureSince === null) retimes = { id: current.id, dueAt: write.retimedTo };
    else {
      // What may be out keeps the instant it may have left at; the same words wait under a key of their own.
      withdraws = current.id;
      copies = { ...newDelivery(act, current, channel, write.retimedTo), parcel: current.parcel };
    }
  } else if (after.stage === 'scheduled' && !current) {
    throw new Error('a post is scheduled by giving it an instant to leave at');
  }

  const [missing] = after.stage === 'ready' ? blocksOf(content, channel.sheet) : [];
  if (missing) after.stage = 'production';
  const changed = new Set(Object.keys(fields) as (keyof PostChange)[]);
  if (after.stage !== post.stage) changed.add('stage');
  return {
    write,
    after,
    channel,
    pictures,
    fields: [...changed],
    withdraws,
    retimes,
    copies,
    tookBack: missing !== undefined,
    missing: missing?.message ?? null,
    unscheduled,
    changeId: null,
    ...(chosen && { chosenTime: chosen.time }),
    mayBeOut: !write.out && (open.maybeOut.some(mayBeOut) || (current !== undefined && mayBeOut(current))),
  };
}

/** Only what a person said to be out, and no network, can be said not to be. */
function mustBeOutByWord({ delivery, maybeOut, post }: OpenPost): void {
  const isTaken = [...(delivery ? [delivery] : []), ...maybeOut].some(({ tookAt }) => tookAt !== null);
  if (isTaken || post.notSent !== null) must(refusePublished());
}

/** Whether a write lets a post leave, at another time too, says that it is out, or keeps a scheduled one from leaving. What is set aside or deleted leaves no more, whoever does it. */
function changesWhatLeaves({ open: { post }, change, leavesAt, retimedTo, out, ...word }: PostWrite): boolean {
  const isUnscheduled =
    post.stage === 'scheduled' && change.stage !== undefined && !['scheduled', 'setAside'].includes(change.stage);
  const isOfWord = word.takesBackWord === true || word.correctsWord === true;
  return leavesAt !== undefined || retimedTo !== undefined || out === 'said' || isUnscheduled || isOfWord;
}

function channelAfter({ post, channel }: OpenPost, { channelId }: PostChange, ground: Ground): Channel {
  if (channelId === undefined || channelId === post.channelId) return channel;
  return ground.channels.get(channelId) ?? refused(FOREIGN_CHANNEL);
}

const FOREIGN_CHANNEL: Refusal = {
  code: 'foreignChannel',
  field: 'channels',
  message: 'That channel belongs to another brand, or is archived. Choose among the channels of this brand.',
};

function mustBeOfItsBrand({ post }: OpenPost, change: PostChange, channel: Channel, ground: Ground): void {
  const { ownerId } = change;
  if (ownerId !== undefined && ownerId !== post.ownerId && !ground.workers.has(`${post.brandId} ${ownerId}`))
    refused({
      code: 'foreignOwner',
      field: 'owner',
      message: 'The owner has to be somebody who works for this brand.',
    });
  for (const field of ['pillarId', 'campaignId'] as const) {
    const id = change[field];
    if (id && id !== post[field] && !ground.themes.has(`${post.brandId} ${field} ${id}`))
      refused({ code: 'otherBrand', field, message: 'That pillar or campaign is not one of this brand.' });
  }
  if (channel.id !== post.channelId && (channel.brandId !== post.brandId || channel.archived)) refused(FOREIGN_CHANNEL);
}

function mustShowOwnPictures({ parts }: Post, pictures: readonly Picture[]): void {
  if (!parts.every(({ pictureId }) => pictureId === null || pictures.some(({ id }) => id === pictureId)))
    refused({ code: 'badParts', field: 'parts', message: 'A part shows a picture that this post does not have.' });
}

/** A time that the clock skips on a day is nobody's plan. */
function mustBeRealTime({ post, brand }: OpenPost, after: Post): void {
  if (after.date === null || after.time === null || (after.date === post.date && after.time === post.time)) return;
  const due = dueInstant(after.date, after.time, brand.zone);
  if (!due.ok) refused(due.refusal);
}

function mustBeFit(blocks: readonly Block[]): void {
  const [first] = blocks;
  if (first) must(refuse('blocked', `Not scheduled yet. ${first.message}`, first.field));
}

/** What the network of a channel would refuse of a copy that waits to leave. */
export const blocksOfCopy = ({ parcel }: Pick<NewDelivery, 'parcel'>, channel: Pick<Channel, 'sheet'>): Block[] =>
  blocksOf({ ...parcel.words, format: parcel.format, pictures: parcel.pictures.map(measuresOf) }, channel.sheet);

/** A delivery that waits for an instant on a channel, all but what it carries. */
export function newDelivery(
  act: Acting,
  { brandId, postId }: { brandId: string; postId: string },
  channel: Channel,
  dueAt: Instant,
): Omit<NewDelivery, 'parcel'> {
  const id = act.ids();
  return {
    id,
    brandId,
    postId,
    channelId: channel.id,
    mode: channel.sheet.automatic ? 'automatic' : 'byHand',
    state: 'waiting',
    idempotencyKey: id,
    dueAt,
    nextTryAt: dueAt,
    attempts: 0,
    words: '',
    createdAt: act.now,
  };
}

const copyOf = (
  act: Acting,
  post: Post & { pictures: readonly Picture[] },
  channel: Channel,
  dueAt: Instant,
): NewDelivery => ({
  ...newDelivery(act, { brandId: post.brandId, postId: post.id }, channel, dueAt),
  parcel: makeParcel(post, channel),
});
