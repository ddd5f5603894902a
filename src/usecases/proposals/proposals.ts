import { FOLDED_AFTER_DAYS } from '@/core/proposals/proposal';
import { accept, type Result } from '@/core/refusal';
import { mayPlanFor } from '@/core/stages/moves';
import { addMs, localOf, type Instant, type LocalDate, type LocalTime } from '@/core/time/plan';
import { oneBrand } from '@/data/brands/brands';
import { listChannelsById } from '@/data/brands/channels';
import type { Queryable } from '@/data/database/db';
import { maybeSource } from '@/data/extracts/extracts';
import { listPictures } from '@/data/media/media';
import { deleteSuggestions } from '@/data/pieces/pieces';
import {
  listDaysOfRow,
  listWaiting,
  lockProposal,
  maybeProposal,
  updateProposal,
  type Proposal,
} from '@/data/proposals/proposals';
import { quoted } from '@/core/calendar/change';
import { followVersions } from '@/data/undo/changes';
import { madePosts, takenSuggestions } from '../undo/noteChange';
import { undoably } from '../undo/undoably';
import { keptReading, letBeRead } from '../extracts/keptReading';
import { attachCard, drawCardFor, type FileWork } from '../cards/cards';
import { datesOf } from '../fanOut/datesOf';
import { newPost, noteExtracts } from '../fanOut/plannedPosts';
import { ownPiece } from '../pieces/pieces';
import { addPosts } from '../posts/addPosts';
import { mayRead, mustMay } from '../rights/mustMay';
import { doing, must, notFound, refused, type Doing, type Work } from '../useCase';

/** What waits for a person. */
export interface WaitingProposal {
  id: string;
  pieceId: string;
  pieceTitle: string;
  channelId: string;
  format: string;
  headline: string;
  caption: string;
  parts: number;
  /** What it is made from; null for the whole piece. */
  kind: string | null;
  hasCard: boolean;
  /** It has waited so long that it is folded away. */
  isFolded: boolean;
}

/** Proposals shown to a person at once. */
const SHOWN = 100;

/** What waits for a person in a brand, the newest first. */
export async function loadProposals(
  db: Queryable,
  ownerId: string,
  brandId: string,
  now: Instant,
): Promise<WaitingProposal[]> {
  const folded = addMs(now, -FOLDED_AFTER_DAYS * 86_400_000);
  return (await listWaiting(db, ownerId, brandId, SHOWN)).map(
    ({ id, pieceId, pieceTitle, channelId, format, draft, from, card, madeAt }) => ({
      ...{ id, pieceId, pieceTitle, channelId, format },
      headline: draft.words.headline ?? '',
      caption: draft.words.caption ?? '',
      parts: draft.parts.length,
      kind: from[0]?.kind ?? null,
      hasCard: card !== null,
      isFolded: madeAt < folded,
    }),
  );
}

/** Where a kept proposal went. */
export interface KeptProposal {
  postId: string;
  date: LocalDate | null;
  time: LocalTime | null;
}

/**
 * Makes a post of a proposal: dated now by its channel's openings, with its prep, its draft as it was drawn up or as it was changed,
 * and its picture.
 *
 * @param caption as somebody changed it; null for that of the draft
 */
export async function keepProposal(work: FileWork, id: string, caption: string | null): Promise<Result<KeptProposal>> {
  const proposed = await maybeProposal(work.db, id);
  if (proposed) await letBeRead(work.db, proposed.pieceId);
  const kept = await doing(work, async (act) => {
    const proposal = await takeWaiting(act, id);
    const piece = await ownPiece(act, proposal.pieceId);
    const [channel] = await listChannelsById(act.tx, [proposal.channelId]);
    if (!channel || channel.archived)
      refused({ code: 'noChannel', message: 'Its channel is archived. Reject it, or bring the channel back.' });
    const { channelId, format, offset, gap, draft } = proposal;
    const from = await stillThere(act, proposal);
    const wanted = { key: id, row: 0, number: 0, channelId, format, offset, gap, from };
    const rowDays = new Map([[wanted.row, await listDaysOfRow(act.tx, proposal)]]);
    const { dates, prepOf } = await datesOf(act.tx, piece, { anchor: null, rowDays }, [wanted], act.now);
    const place = dates.get(id)!;
    const { zone } = await oneBrand(act.tx, piece.brandId);
    must(mayPlanFor({ stage: 'drafting', leaving: false }, place, localOf(act.now, zone).date, zone));
    const made = newPost(
      act,
      piece,
      wanted,
      draft,
      place,
      caption === null ? {} : { words: { caption } },
      prepOf(wanted),
    );
    const label = `Made a post of a proposal for ${quoted(piece.title)}`;
    await undoably(
      act,
      watchedOf(proposal, label),
      async () => {
        await addPosts(act, [made]);
        await noteExtracts(act, piece, [{ post: wanted, made }]);
        await updateProposal(act.tx, id, { state: 'kept', at: act.now, postId: made.id });
        return deleteSuggestions(act.tx, piece.id, [channelId]);
      },
      (suggested) => [...madePosts([made.id]), takenSuggestions(piece.id, suggested)],
    );
    await act.note({
      ...{ brandId: piece.brandId, subject: 'post', subjectId: made.id, deed: 'proposal kept' },
      detail: { fanOut: proposal.fanOut },
    });
    return { postId: made.id, date: place.date, time: place.time, card: proposal.card };
  });
  if (!kept.ok) return kept;
  const { card, ...outcome } = kept.value;
  // A post whose picture cannot be drawn lacks one, and says so itself.
  const { request: _request, ...plain } = work;
  if (card && (await listPictures(work.db, outcome.postId)).length === 0) {
    const drawn = await attachCard(plain, outcome.postId, card, null, true);
    // Its picture belongs to it: with it, nobody has touched it yet.
    if (drawn.ok) await work.db.transaction((tx) => followVersions(tx, work, [{ id: outcome.postId, from: 1, to: 2 }]));
  }
  return accept(outcome);
}

/** Throws a proposal away, or takes that back. */
export function throwAway(work: Work, id: string, isBack: boolean): Promise<Result<true>> {
  return doing(work, async (act) => {
    const proposal = await takeProposal(act, id);
    if (proposal.state !== (isBack ? 'thrownAway' : 'waiting')) refused(DECIDED);
    const label = isBack ? 'Took a proposal back' : 'Rejected a proposal';
    await undoably(act, watchedOf(proposal, label), () =>
      updateProposal(act.tx, id, {
        state: isBack ? 'waiting' : 'thrownAway',
        at: isBack ? null : act.now,
        postId: null,
      }),
    );
    const { brandId, pieceId } = proposal;
    const deed = isBack ? 'proposal taken back' : 'proposal rejected';
    await act.note({ brandId, subject: 'piece', subjectId: pieceId, deed, detail: { fanOut: proposal.fanOut } });
    return true as const;
  });
}

/** The picture that a proposal comes with, drawn. */
export async function drawProposal(work: FileWork, id: string): Promise<Result<Uint8Array>> {
  const proposal = await maybeProposal(work.db, id);
  if (!proposal?.card) return { ok: false, refusal: notFound('picture') };
  const allowed = await mayRead(work, 'look', proposal.brandId);
  return allowed.ok ? drawCardFor(work, proposal.brandId, proposal.card) : allowed;
}

const watchedOf = ({ brandId, id }: Proposal, label: string) => ({
  ...{ brandId, label },
  things: [{ name: 'proposal' as const, id }],
});

const DECIDED = { code: 'decided', message: 'Somebody has decided on it already. Reload the page.' };

async function takeProposal(act: Doing, id: string): Promise<Proposal> {
  const proposal = await lockProposal(act.tx, id);
  if (!proposal) refused(notFound('proposal'));
  await mustMay(act, 'changePosts', proposal.brandId);
  return proposal;
}

async function takeWaiting(act: Doing, id: string): Promise<Proposal> {
  const proposal = await takeProposal(act, id);
  if (proposal.state !== 'waiting') refused(DECIDED);
  return proposal;
}

/** The parts of the piece it is made from, as far as the piece still says them there. */
async function stillThere(act: Doing, { pieceId, from }: Proposal): Promise<Proposal['from']> {
  const source = await maybeSource(act.tx, pieceId);
  const { text } = source ? await keptReading(act.tx, pieceId, source) : { text: '' };
  const plain = (words: string) => words.replace(/\s+/g, ' ').trim();
  return from.filter(({ start, end, text: said }) => plain(text.slice(start, end)) === plain(said));
}
