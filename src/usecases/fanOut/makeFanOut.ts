import { saidBy, type OwnTexts } from '@/core/drafts/draft';
import { counted } from '@/core/words';
import { mayPlanFor } from '@/core/stages/moves';
import { localOf, type LocalDate, type LocalTime } from '@/core/time/plan';
import { oneBrand } from '@/data/brands/brands';
import { overIn, roomOf } from '@/core/fanOut/ownTexts';
import { listChannels } from '@/data/brands/channels';
import type { Result } from '@/core/refusal';
import { listPieceMedia } from '@/data/media/pieceMedia';
import { maybePiece, deleteSuggestions } from '@/data/pieces/pieces';
import { mayRead } from '../rights/mustMay';
import { addPosts } from '../posts/addPosts';
import { ownPiece } from '../pieces/pieces';
import { madePosts, noteChange, takenSuggestions } from '../undo/noteChange';
import { doing, must, notFound, refused, type Work } from '../useCase';
import { newPost, noteExtracts } from './plannedPosts';
import { datesOf } from './datesOf';
import { planFanOut, type FanOutAsk, type FanOutPlan } from './planFanOut';

/** A post of a preview that is to be made. */
export interface ChosenPost extends OwnTexts {
  key: string;
  /** Which of its drafts, counted from 0. */
  draft: number;
  /** Its draft as it was shown (`saidBy`). */
  shown: string;
  /** The date that was shown, or that somebody gave it instead. */
  date: LocalDate | null;
  time: LocalTime | null;
  /** Whether somebody gave it that date: then it is kept. */
  isMoved: boolean;
}

/** What was made. */
export interface MadeFanOut {
  postIds: string[];
  /** To undo it by. */
  changeId: string;
  label: string;
}

/** The preview differs from what was shown. */
const CHANGED = {
  code: 'changed',
  message: 'Something has changed since, so the dates or drafts below are new. Look at them, then make the posts.',
};

/** Shows what a fan-out would make. */
export async function previewFanOut(work: Work, pieceId: string, ask: FanOutAsk): Promise<Result<FanOutPlan>> {
  const piece = await maybePiece(work.db, pieceId);
  if (!piece || piece.deletedAt) return { ok: false, refusal: notFound('piece') };
  const allowed = await mayRead(work, 'look', piece.brandId);
  return allowed.ok ? planFanOut(work.db, piece, ask, work.clock.now()) : allowed;
}

/**
 * Makes the posts of a fan-out that were chosen in its preview, in one step that can be undone. It is worked out once more: where a
 * date or draft is another than was shown, nothing is made.
 */
export async function makeFanOut(
  work: Work,
  pieceId: string,
  ask: FanOutAsk,
  chosen: readonly ChosenPost[],
): Promise<Result<MadeFanOut>> {
  const plan = await previewFanOut(work, pieceId, ask);
  if (!plan.ok) return plan;
  return doing(work, async (act) => {
    const piece = await ownPiece(act, pieceId);
    if (chosen.length === 0) refused({ code: 'nothing', message: 'No post is chosen. Switch a row on first.' });
    if (new Set(chosen.map(({ key }) => key)).size < chosen.length) refused(CHANGED);
    const brand = await oneBrand(act.tx, piece.brandId);
    const today = localOf(act.now, brand.zone).date;
    const planned = new Map(plan.value.posts.map((post) => [post.key, post]));
    const { dates, prepOf } = await datesOf(act.tx, piece, ask, plan.value.posts, act.now);
    const channels = await listChannels(act.tx, piece.brandId);
    const media = piece.kind === 'photoSet' ? await listPieceMedia(act.tx, piece.id) : [];
    const posts = chosen.map(({ key, draft: place, shown: said, date, time, isMoved, ...own }) => {
      const post = planned.get(key) ?? refused(CHANGED);
      const shown = dates.get(key)!;
      must(mayPlanFor({ stage: 'drafting', leaving: false }, { date, time }, today, brand.zone));
      if (!isMoved && (shown.date !== date || shown.time !== time)) refused(CHANGED);
      const draft = post.drafts[place];
      if (saidBy(draft) !== said) refused(CHANGED);
      if (own.parts && own.parts.length !== (draft?.parts.length ?? 0)) refused(CHANGED);
      const channel = channels.find((one) => one.id === post.channelId)!;
      const [over] = overIn(roomOf(draft, own, channel.sheet, post.format));
      if (over)
        refused({
          code: 'tooLong',
          message: `What you typed for ${channel.name} does not fit (${over}). Shorten it, or leave that post out.`,
        });
      return {
        post,
        made: newPost(
          act,
          piece,
          post,
          draft,
          { date, time: date === null ? null : time, pillarId: shown.pillarId },
          own,
          prepOf(post),
          media,
        ),
      };
    });
    await addPosts(
      act,
      posts.map(({ made }) => made),
    );
    await noteExtracts(act, piece, posts);
    const suggested = await deleteSuggestions(act.tx, pieceId, [...new Set(posts.map(({ made }) => made.channelId))]);
    await act.note(
      ...posts.map(({ made }) => ({
        brandId: piece.brandId,
        subject: 'post' as const,
        subjectId: made.id,
        deed: 'drafted',
        detail: { fanOut: ask.fanOut },
      })),
    );
    const label = `Made ${counted(posts.length, 'post')} from “${piece.title}”`;
    const postIds = posts.map(({ made }) => made.id);
    const changeId = await noteChange(act, {
      brandId: piece.brandId,
      label,
      items: [...madePosts(postIds), takenSuggestions(pieceId, suggested)],
    });
    return { postIds, changeId: changeId!, label };
  });
}
