import { LASTING, type Lasting } from '@/core/encores/encores';
import type { Result } from '@/core/refusal';
import { mayPlanFor } from '@/core/stages/moves';
import { localOf, type LocalDate, type LocalTime } from '@/core/time/plan';
import { counted } from '@/core/words';
import { updateLasting } from '@/data/encores/encores';
import { insertPostExtracts, listExtractIdsOf } from '@/data/fanOut/postExtracts';
import { listPictures } from '@/data/media/media';
import { deleteSuggestions, maybePiece } from '@/data/pieces/pieces';
import { maybePost, type Post } from '@/data/posts/posts';
import { datesOf } from '../fanOut/datesOf';
import type { MadeFanOut } from '../fanOut/makeFanOut';
import { addPosts, NOT_TAKEN_OVER, type NewPost } from '../posts/addPosts';
import { takePost } from '../posts/takePosts';
import { mayRead } from '../rights/mustMay';
import { madePosts, noteChange, takenSuggestions } from '../undo/noteChange';
import { doing, must, notFound, refused, type Work } from '../useCase';
import { datesAgain, planAgain, type AgainAsk, type AgainPost } from './planAgain';

/** A post of the preview that is to be made, as it was shown or changed. */
export interface ChosenAgain {
  key: string;
  caption: string;
  date: LocalDate | null;
  time: LocalTime | null;
  /** Whether somebody gave it that date: then it is kept. */
  isMoved: boolean;
}

const CHANGED = {
  code: 'changed',
  message: 'Something has changed since, so the dates below are new. Look at them, then make the posts.',
};

/** Shows what using a post again would make. */
export async function previewAgain(work: Work, postId: string, ask: AgainAsk): Promise<Result<AgainPost[]>> {
  const post = await maybePost(work.db, postId);
  if (!post || post.deletedAt) return { ok: false, refusal: notFound('post') };
  const allowed = await mayRead(work, 'look', post.brandId);
  if (!allowed.ok) return allowed;
  return planAgain(work.db, post, (await maybePiece(work.db, post.pieceId))!, ask, work.clock.now());
}

/**
 * Makes new posts of one that is there, with its pictures and parts, in one step that can be undone. On its own channel they are it
 * again: then it is no encore to be done while they are to come. Where a date is another than was shown, nothing is made.
 */
export async function makeAgain(
  work: Work,
  postId: string,
  ask: AgainAsk,
  chosen: readonly ChosenAgain[],
): Promise<Result<MadeFanOut>> {
  const plan = await previewAgain(work, postId, ask);
  if (!plan.ok) return plan;
  return doing(work, async (act) => {
    const { post, brand } = await takePost(act, postId, 'changePosts');
    const piece = (await maybePiece(act.tx, post.pieceId))!;
    if (chosen.length === 0) refused({ code: 'nothing', message: 'No post is chosen. Leave at least one on.' });
    if (new Set(chosen.map(({ key }) => key)).size < chosen.length) refused(CHANGED);
    const planned = new Map(plan.value.map((one) => [one.key, one]));
    const undated = plan.value.map((one) => ({
      ...one,
      row: ask.channelIds.indexOf(one.channelId),
      number: Number(one.key.split('-', 1)[0]),
    }));
    const dates = await datesAgain(act.tx, post, piece, ask, undated, act.now);
    const { prepOf } = await datesOf(act.tx, piece, { anchor: null }, [], act.now);
    const pictures = await listPictures(act.tx, postId);
    const today = localOf(act.now, brand.zone).date;
    const made = chosen.map(({ key, caption, date, time, isMoved }): NewPost => {
      const one = planned.get(key) ?? refused(CHANGED);
      const place = dates.get(key)!;
      if (!isMoved && (place.date !== date || place.time !== time)) refused(CHANGED);
      must(mayPlanFor({ stage: 'drafting', leaving: false }, { date, time }, today, brand.zone));
      return {
        ...post,
        ...NOT_TAKEN_OVER,
        ...{ id: act.ids(), createdAt: act.now, stage: 'drafting', pictures },
        ...{ channelId: one.channelId, format: one.format, caption, hashtags: one.hashtags },
        ...{ date, time: date === null ? null : time, pillarId: place.pillarId },
        campaignId: post.stage === 'published' ? null : post.campaignId,
        encoreOf: one.channelId === post.channelId ? rootOf(post) : null,
        prep: prepOf({ format: one.format, from: [] }),
      };
    });
    await addPosts(act, made);
    await insertPostExtracts(
      act.tx,
      (await listExtractIdsOf(act.tx, postId)).flatMap((extractId) =>
        made.map(({ id }) => ({ postId: id, extractId })),
      ),
    );
    const suggested = await deleteSuggestions(act.tx, piece.id, [...new Set(made.map(({ channelId }) => channelId))]);
    await act.note(
      ...made.map(({ id }) => ({
        brandId: post.brandId,
        subject: 'post' as const,
        subjectId: id,
        deed: 'made again',
        detail: { from: post.id },
      })),
    );
    const label = `Made ${counted(made.length, 'post')} from “${post.title}”`;
    const postIds = made.map(({ id }) => id);
    const changeId = await noteChange(act, {
      brandId: post.brandId,
      label,
      items: [...madePosts(postIds), takenSuggestions(piece.id, suggested)],
    });
    return { postIds, changeId: changeId!, label };
  });
}

const rootOf = ({ id, encoreOf }: Pick<Post, 'id' | 'encoreOf'>): string => encoreOf ?? id;

/** Says of a post whether it may come again: when it did well, or never. It holds for all that are it again. */
export function sayLasting(work: Work, postId: string, lasting: Lasting): Promise<Result<true>> {
  return doing(work, async (act) => {
    const { post } = await takePost(act, postId, 'changePosts');
    if (!LASTING.includes(lasting))
      refused({ code: 'badLasting', field: 'lasting', message: 'That is not one of the two.' });
    await updateLasting(act.tx, rootOf(post), lasting);
    await act.note({
      brandId: post.brandId,
      subject: 'post',
      subjectId: postId,
      deed: 'said to last',
      detail: { lasting },
    });
    return true as const;
  });
}
