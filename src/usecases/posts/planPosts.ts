import { readWindow } from '@/core/rhythm/window';
import type { Post } from '@/data/posts/posts';
import type { WriteOutcome } from '@/core/posts/outcome';
import { changeWords, quoted } from '@/core/calendar/change';
import { formatOn } from '@/core/calendar/drop';
import { hasOwnWords, headlineFrom } from '@/core/posts/oneTitle';
import type { Format } from '@/core/rulesheets/types';
import { localOf, type LocalDate, type LocalTime } from '@/core/time/plan';
import { mayPlanFor, maySchedule } from '@/core/stages/moves';
import type { Result } from '@/core/refusal';
import { oneBrand } from '@/data/brands/brands';
import { deleteSuggestions } from '@/data/pieces/pieces';
import { addPosts } from './addPosts';
import { channelsOfBrand, ownPiece } from '../pieces/pieces';
import { takePostAt, type OpenPost } from './takePosts';
import { madePosts, noteChange, takenSuggestions } from '../undo/noteChange';
import { noteWithMade } from '../undo/noteWithMade';
import { doing, must, refused, type Acting, type Work } from '../useCase';
import { blocksOfCopy, type PostWrite } from './checkWrites';
import { changePost } from './writePosts';

/** What an opening asks of the post that is made for it. */
export interface Asked {
  format?: Format | null;
  pillarId?: string | null;
  /** Whether the piece was just made to be planned: making and planning it are undone as one. */
  isMadeForIt?: boolean;
  /** Channels that have a place of their own, as in openings; the others take the plan of all. */
  places?: readonly ({ channelId: string; format: Format | null; pillarId: string | null } & Plan)[];
}

/** Posts made of a piece, in the order of their channels. */
interface Planned {
  postIds: string[];
  /** To undo it by. */
  changeId: string;
}

/** A day and, if wanted, a time; both null for undated. */
export interface Plan {
  date: LocalDate | null;
  time: LocalTime | null;
}

/**
 * Plans a piece: makes one post for each channel chosen, in the format asked for or the channel's first, drafting, owned by whoever plans.
 * A suggestion that has its post now is done with, until it is undone.
 */
export function planPiece(
  work: Work,
  pieceId: string,
  channelIds: readonly string[],
  plan: Plan,
  asked: Asked = {},
): Promise<Result<Planned>> {
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
    const today = localOf(act.now, brand.zone).date;
    const placeOf = (channelId: string) => asked.places?.find((place) => place.channelId === channelId);
    for (const { id } of channels) {
      const { date, time } = placeOf(id) ?? plan;
      must(mayPlanFor({ stage: 'drafting', leaving: false }, { date, time }, today, brand.zone));
    }
    const formatFor = (channel: (typeof channels)[number]) =>
      formatOn(channel.sheet, (placeOf(channel.id) ?? asked).format ?? null);
    const posts = channels.map((channel) => ({
      id: act.ids(),
      brandId: piece.brandId,
      pieceId,
      channelId: channel.id,
      format: formatFor(channel),
      pillarId: (placeOf(channel.id) ?? asked).pillarId ?? null,
      title: piece.title,
      headline: headlineFrom(piece.title, channel.sheet, formatFor(channel)),
      caption: '',
      hashtags: '',
      link: piece.link,
      ...whenOf(placeOf(channel.id) ?? plan),
      stage: 'drafting' as const,
      ownerId: act.actorId,
      publishedAt: null,
      address: '',
      createdAt: act.now,
    }));
    await addPosts(act, posts);
    const suggested = await deleteSuggestions(act.tx, pieceId, channelIds);
    await act.note(
      ...posts.map((post) => ({
        brandId: piece.brandId,
        subject: 'post' as const,
        subjectId: post.id,
        deed: 'planned',
        detail: whenOf(post),
      })),
    );
    const postIds = posts.map(({ id }) => id);
    const change = {
      brandId: piece.brandId,
      label: `Planned ${quoted(piece.title)}`,
      items: [...madePosts(postIds), takenSuggestions(pieceId, suggested)],
    };
    const changeId = await (asked.isMadeForIt ? noteWithMade(act, pieceId, change) : noteChange(act, change));
    return { postIds, changeId: changeId! };
  });
}

const whenOf = ({ date, time }: Plan): Plan => ({ date, time });

/** What a move did beside moving. */
interface MoveOutcome extends WriteOutcome {
  /** The post stays scheduled and leaves at its new time. */
  retimed: boolean;
}

/** Another day or time, or none. A time that is absent stays as it was. */
export interface Move {
  date: LocalDate | null;
  time?: LocalTime | null;
  /** The end of its window, or its own time for that very minute; null as its rhythm says. Absent: as it was, while its time stays. */
  until?: LocalTime | null;
  /** Taken while nothing is written yet. */
  format?: Format;
}

/**
 * Gives a post another day or time, or none. A scheduled post is checked again and leaves at its new time; without a date
 * or a time it is unscheduled.
 */
export function movePost(work: Work, id: string, version: number, to: Move): Promise<Result<MoveOutcome>> {
  return doing(work, async (act) => {
    const open = await takePostAt(act, id, version, 'changePosts');
    const undoneAs = changeWords({ kind: 'place', date: to.date }, open.post.title);
    const write = { ...moving(act, open, to), undoneAs };
    return { ...(await changePost(act, write)), retimed: write.retimedTo !== undefined };
  });
}

/** What becomes of the window of a post that is moved: another time makes it that very minute's, unless a window is said. */
function windowAfter(
  { post, channel }: OpenPost,
  plan: Plan,
  { until }: Move,
): Partial<Pick<Post, 'until' | 'windowFrom'>> {
  if (until === undefined) return plan.time === post.time ? {} : { until: null, windowFrom: null };
  if (post.stage === 'scheduled')
    refused({ code: 'scheduled', field: 'until', message: 'Its minute is chosen. Unschedule it to give it a window.' });
  if (until !== null && plan.time !== null && until !== plan.time)
    must(readWindow({ from: plan.time, until }, channel.distanceMinutes));
  return { until: plan.time === null ? null : until, windowFrom: null };
}

/** What moving a taken post writes. */
export function moving(act: Pick<Acting, 'now'>, open: OpenPost, to: Move): PostWrite {
  const { post, brand, channel, facts, delivery } = open;
  const plan: Plan = { date: to.date, time: to.date === null ? null : to.time === undefined ? post.time : to.time };
  must(mayPlanFor(facts, plan, localOf(act.now, brand.zone).date, brand.zone));
  const window = windowAfter(open, plan, to);
  if (post.stage !== 'scheduled' || !delivery) {
    const isBlank = !hasOwnWords(post) && open.pictures.length === 0;
    const format = to.format && isBlank ? { format: formatOn(channel.sheet, to.format) } : {};
    return { open, change: { ...plan, ...window, ...format }, deed: 'moved', detail: plan };
  }
  if (plan.date === null || plan.time === null)
    return { open, change: { ...plan, ...window, stage: 'ready' }, deed: 'unscheduled', detail: plan };
  const retimedTo = must(maySchedule({ ...facts, ...plan, blocks: blocksOfCopy(delivery, channel), wants: [] }));
  return { open, change: { ...plan, ...window }, retimedTo, deed: 're-timed', detail: plan };
}
