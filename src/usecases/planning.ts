import { formatOn } from '@/core/calendar/drop';
import { hasWords } from '@/core/captions/compose';
import type { Format } from '@/core/rulesheets/types';
import { localOf, type LocalDate, type LocalTime } from '@/core/time/plan';
import { mayPlanFor, maySchedule } from '@/core/stages/moves';
import { measuresOf } from '@/core/delivery/parcel';
import { blocksOf } from '@/core/posts/readiness';
import type { Result } from '@/core/refusal';
import { oneBrand } from '@/data/brands';
import { retimeDelivery, withdrawDelivery } from '@/data/deliveries';
import { deleteSuggestions } from '@/data/pieces';
import { addPosts } from './adding';
import { channelsOfBrand, ownPiece } from './pieces';
import { changePost, takePostAt, type OpenPost } from './posts';
import { doing, must, refused, type Doing, type Work } from './work';

/** What an opening asks of the post that is made for it. */
export interface Asked {
  format?: Format | null;
  pillarId?: string | null;
}

/** A day and, if wanted, a time; both null for undated. */
export interface Plan {
  date: LocalDate | null;
  time: LocalTime | null;
}

/**
 * Plans a piece: makes one post for each channel chosen, in the format asked for or the channel's first, drafting, owned by whoever plans.
 * A suggestion that has its post now is done with.
 *
 * @returns the new posts' ids in the order of the channels
 */
export function planPiece(
  work: Work,
  pieceId: string,
  channelIds: readonly string[],
  plan: Plan,
  asked: Asked = {},
): Promise<Result<string[]>> {
  return doing(work, async (act) => {
    const piece = await ownPiece(act, pieceId);
    const channels = await channelsOfBrand(act, piece.brandId, channelIds);
    if (channels.length === 0)
      refused({
        code: 'noChannel',
        field: 'channels',
        message: 'Choose at least one channel: a post is made for each.',
      });
    const brand = await oneBrand(act.tx, piece.brandId);
    must(mayPlanFor({ stage: 'drafting', leaving: false }, plan, localOf(act.now, brand.zone).date, brand.zone));
    const posts = channels.map((channel) => ({
      id: act.ids(),
      brandId: piece.brandId,
      pieceId,
      channelId: channel.id,
      format: formatOn(channel.sheet, asked.format ?? null),
      pillarId: asked.pillarId ?? null,
      title: piece.title,
      headline: '',
      caption: '',
      hashtags: '',
      link: piece.link,
      ...plan,
      stage: 'drafting' as const,
      ownerId: act.actorId,
      publishedAt: null,
      address: '',
      createdAt: act.now,
    }));
    await addPosts(act, posts);
    await deleteSuggestions(act.tx, pieceId, channelIds);
    for (const post of posts)
      await act.note({ brandId: piece.brandId, subject: 'post', subjectId: post.id, deed: 'planned', detail: plan });
    return posts.map((post) => post.id);
  });
}

/** What a move did beside moving. */
export interface MoveOutcome {
  /** The post had been scheduled and does not leave any more. */
  unscheduled: boolean;
  /** The post stays scheduled and leaves at its new time. */
  retimed: boolean;
}

/**
 * Gives a post another day or time, or none. A time that is absent stays as it was. A scheduled post is checked again
 * and leaves at its new time; without a date or a time it is unscheduled.
 */
export function movePost(
  work: Work,
  id: string,
  version: number,
  to: { date: LocalDate | null; time?: LocalTime | null },
): Promise<Result<MoveOutcome>> {
  return doing(work, async (act) => {
    const { unscheduled, retimed } = await placeOpenPost(act, await takePostAt(act, id, version), to);
    return { unscheduled, retimed };
  });
}

/** Moves a post that was taken, as `movePost` does. A format that is given is taken while nothing is written yet. */
export async function placeOpenPost(
  act: Doing,
  open: OpenPost,
  to: { date: LocalDate | null; time?: LocalTime | null; format?: Format },
): Promise<MoveOutcome & { plan: Plan }> {
  const { post, brand, channel, facts, delivery } = open;
  const plan: Plan = { date: to.date, time: to.date === null ? null : to.time === undefined ? post.time : to.time };
  must(mayPlanFor(facts, plan, localOf(act.now, brand.zone).date, brand.zone));
  const scheduled = post.stage === 'scheduled' && delivery !== undefined;
  if (!scheduled) {
    const isBlank = !hasWords(post) && open.pictures.length === 0;
    const format = to.format && isBlank ? { format: formatOn(channel.sheet, to.format) } : {};
    await changePost(act, open, { ...plan, ...format }, 'moved', plan);
    return { unscheduled: false, retimed: false, plan };
  }
  if (plan.date === null || plan.time === null) {
    if (!(await withdrawDelivery(act.tx, delivery.id))) refused(LEAVING_NOW);
    await changePost(act, open, { ...plan, stage: 'ready' }, 'unscheduled', plan);
    return { unscheduled: true, retimed: false, plan };
  }
  const copyBlocks = blocksOf(
    { ...delivery.parcel.words, format: delivery.parcel.format, pictures: delivery.parcel.pictures.map(measuresOf) },
    channel.sheet,
  );
  const due = must(maySchedule({ ...facts, ...plan, blocks: copyBlocks, wants: [] }));
  if (!(await retimeDelivery(act.tx, delivery.id, due))) refused(LEAVING_NOW);
  await changePost(act, open, plan, 're-timed', plan);
  return { unscheduled: false, retimed: true, plan };
}

const LEAVING_NOW = {
  code: 'leaving',
  message: 'This post is leaving right now. Wait until the network has answered, then look again.',
};
