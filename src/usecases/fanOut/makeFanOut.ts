import { counted } from '@/core/words';
import type { Draft } from '@/core/drafts/draft';
import { writtenOf } from '@/core/posts/written';
import { FORMAT_LABELS } from '@/core/rulesheets/types';
import { mayPlanFor } from '@/core/stages/moves';
import { localOf, type LocalDate, type LocalTime } from '@/core/time/plan';
import { oneBrand } from '@/data/brands/brands';
import type { Result } from '@/core/refusal';
import { insertChange } from '@/data/calendar/calendarChanges';
import { insertExtracts, listExtracts, type KeptExtract } from '@/data/extracts/extracts';
import { insertPostExtracts } from '@/data/fanOut/postExtracts';
import { maybePiece, deleteSuggestions } from '@/data/pieces/pieces';
import { mayRead } from '../rights/mustMay';
import { addPosts, type NewPost } from '../posts/addPosts';
import { ownPiece } from '../pieces/pieces';
import { doing, must, notFound, refused, type Doing, type Work } from '../useCase';
import { datesOf } from './datesOf';
import { planFanOut, type FanOutAsk, type FanOutPlan } from './planFanOut';

/** A post of a preview that is to be made. */
export interface ChosenPost {
  key: string;
  /** Which of its drafts, counted from 0. */
  draft: number;
  /** Its caption as it was shown. */
  shown: string;
  /** The date that was shown, or that somebody gave it instead. */
  date: LocalDate | null;
  time: LocalTime | null;
  /** Whether somebody gave it that date: then it is kept. */
  isMoved: boolean;
  /** The caption as it was changed in the preview; absent where it was not. */
  caption?: string | undefined;
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
  message: 'Something changed meanwhile, so the dates or drafts below are new. Look at them, then make the posts.',
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
    const posts = chosen.map(({ key, draft: place, shown: captionShown, date, time, isMoved, caption }) => {
      const post = planned.get(key) ?? refused(CHANGED);
      const shown = dates.get(key)!;
      must(mayPlanFor({ stage: 'drafting', leaving: false }, { date, time }, today, brand.zone));
      if (!isMoved && (shown.date !== date || shown.time !== time)) refused(CHANGED);
      const draft = post.drafts[place];
      if ((draft?.words.caption ?? '') !== captionShown) refused(CHANGED);
      return {
        post,
        made: newPost(
          act,
          piece,
          post,
          draft,
          { date, time: date === null ? null : time, pillarId: shown.pillarId },
          caption,
          prepOf(post),
        ),
      };
    });
    await addPosts(
      act,
      posts.map(({ made }) => made),
    );
    await noteExtracts(act, piece, posts);
    await deleteSuggestions(act.tx, pieceId, [...new Set(posts.map(({ made }) => made.channelId))]);
    await act.note(
      ...posts.map(({ made }) => ({
        brandId: piece.brandId,
        subject: 'post' as const,
        subjectId: made.id,
        deed: 'drafted',
        detail: { fanOut: ask.fanOut },
      })),
    );
    const change = { id: act.ids(), label: `Made ${counted(posts.length, 'post')} from “${piece.title}”` };
    await insertChange(act.tx, {
      ...change,
      brandId: piece.brandId,
      actorId: act.actorId,
      at: act.now,
      items: posts.map(({ made }) => ({ postId: made.id, before: null, base: null, version: 1 })),
    });
    return { postIds: posts.map(({ made }) => made.id), changeId: change.id, label: change.label };
  });
}

type Piece = Awaited<ReturnType<typeof ownPiece>>;
type Planned = FanOutPlan['posts'][number];

function newPost(
  act: Doing,
  piece: Piece,
  post: Planned,
  draft: Draft | undefined,
  place: Pick<NewPost, 'date' | 'time' | 'pillarId'>,
  caption: string | undefined,
  prep: NewPost['prep'],
): NewPost {
  const words = writtenOf({
    headline: '',
    caption: '',
    hashtags: '',
    link: piece.link,
    ...draft?.words,
    ...(caption !== undefined && { caption }),
  });
  return {
    ...words,
    id: act.ids(),
    brandId: piece.brandId,
    pieceId: piece.id,
    channelId: post.channelId,
    format: post.format,
    title: workingTitle(piece, post, words),
    parts: (draft?.parts ?? []).map((text) => ({ id: act.ids(), text, pictureId: null })),
    drafted: (draft?.sentences ?? [])
      .filter(({ origin }) => origin === 'phrase' || origin === 'shelf')
      .map(({ field, text }) => ({ field, text })),
    ...place,
    stage: 'drafting',
    ownerId: piece.ownerId,
    publishedAt: null,
    address: '',
    createdAt: act.now,
    prep: prep!,
  };
}

/** Characters of a working title. */
const TITLE_LENGTH = 80;

/** What a post is called by the team: what it says where it is made from a part, the piece and its format otherwise. */
function workingTitle(
  piece: Piece,
  { from, format }: Planned,
  { headline, caption }: { headline: string; caption: string },
): string {
  const said = from.length === 0 ? '' : headline || (caption.split('\n')[0] ?? '');
  if (said.trim() === '') return `${piece.title}: ${FORMAT_LABELS[format]}`.slice(0, 200);
  if (said.length <= TITLE_LENGTH) return said;
  const cut = said.slice(0, TITLE_LENGTH);
  return `${cut.slice(0, cut.lastIndexOf(' ') > 20 ? cut.lastIndexOf(' ') : TITLE_LENGTH)}…`;
}

/** What posts were made from is accepted by that, and an extract knows its posts. */
async function noteExtracts(
  act: Doing,
  piece: Piece,
  posts: readonly { post: Planned; made: NewPost }[],
): Promise<void> {
  const keyOf = ({ kind, start, end }: { kind: string; start: number; end: number }) =>
    `${kind === 'clip'}-${start}-${end}`;
  const ids = new Map((await listExtracts(act.tx, piece.id)).map((extract) => [keyOf(extract), extract.id]));
  const added: KeptExtract[] = [];
  const links = posts.flatMap(({ post, made }) =>
    post.from.map(({ kind, start, end, reason }) => {
      const key = keyOf({ kind, start, end });
      const id = ids.get(key) ?? act.ids();
      if (!ids.has(key)) {
        ids.set(key, id);
        const { id: pieceId, brandId } = piece;
        const by = { createdAt: act.now, createdBy: act.actorId };
        added.push({ id, brandId, pieceId, kind, state: 'accepted', start, end, reason, ...by });
      }
      return { postId: made.id, extractId: id };
    }),
  );
  await insertExtracts(act.tx, added);
  await insertPostExtracts(act.tx, links);
}
