import { quoted } from '@/core/calendar/change';
import { isWebLink } from '@/core/posts/readiness';
import { PIECE_KINDS, type PieceKind } from '@/core/pieces/kinds';
import { readTitle, TEXT_LIMITS } from '@/core/pieces/piece';
import { ofEachPieceText, pieceText, type AboutField, type PieceTexts } from '@/core/pieces/texts';
import type { Result } from '@/core/refusal';
import { readDate, type LocalDate } from '@/core/time/plan';
import { listChannels } from '@/data/brands/channels';
import {
  insertPieces,
  maybePiece,
  replaceSuggestions,
  updatePieceDeleted,
  updatePieceSetAside,
  updatePiece,
  updateTypedAt,
  type Piece,
} from '@/data/pieces/pieces';
import { maybeSource } from '@/data/extracts/extracts';
import { follow, prepareFollowing } from '../extracts/followSource';
import { recount } from '../prep/countPrep';
import { prepOfPiece, replacePrep } from '../prep/givePrep';
import { mustMay } from '../rights/mustMay';
import { undoably } from '../undo/undoably';
import { doing, must, mustFit, notFound, refused, STALE, type Doing, type Work } from '../useCase';

/** What can be given when an idea is caught. Only the title is needed. */
interface IdeaInput extends Partial<Record<AboutField, string>> {
  brandId: string;
  title: string;
  channelIds?: readonly string[];
  /** What it is, where that is known already; then it comes with the prep of its kind. */
  kind?: PieceKind;
}

/** Catches an idea; it belongs to whoever caught it. */
export function catchIdea(work: Work, input: IdeaInput): Promise<Result<Piece>> {
  return doing(work, async (act) => {
    await mustMay(act, 'catchIdeas', input.brandId);
    const id = act.ids();
    const texts = checkTexts({ ...ofEachPieceText(() => ''), ...input });
    const kind = checkKind(input.kind ?? 'message');
    const made = { ...texts, kind, id, brandId: input.brandId, ownerId: act.actorId, createdAt: act.now };
    const label = `Caught ${quoted(texts.title)}`;
    await undoably(act, { brandId: input.brandId, label, things: [{ name: 'piece', id }] }, () =>
      insertPieces(act.tx, [made]),
    );
    if (input.kind !== undefined) {
      const piece = (await maybePiece(act.tx, id))!;
      await replacePrep(act, input.brandId, id, await prepOfPiece(act, piece));
    }
    await suggest(act, { id, brandId: input.brandId }, input.channelIds ?? []);
    await act.note({ brandId: input.brandId, subject: 'piece', subjectId: id, deed: 'caught' });
    return (await maybePiece(act.tx, id))!;
  });
}

/** What can be changed about a piece; what is absent stays. */
interface PieceEdit extends Partial<PieceTexts> {
  /** With another kind, the piece gets the prep of that one. */
  kind?: PieceKind;
  /** The day its own prep counts back from; null for that of its earliest post. */
  prepDay?: LocalDate | null;
  /** The channels still suggested; leaving one out waves it off. */
  channelIds?: readonly string[];
}

/** Edits a piece, based on the version given. */
export async function editPiece(work: Work, id: string, version: number, edit: PieceEdit): Promise<Result<Piece>> {
  const { sourceText: source } = edit;
  const isKept = source !== undefined && source.length <= TEXT_LIMITS.sourceText;
  const following = isKept ? await prepareFollowing(work.db, id, { source }) : null;
  return doing(work, async (act) => {
    const piece = await ownPiece(act, id);
    const texts = checkTexts({ ...piece, ...edit });
    const { kind = piece.kind, prepDay = piece.prepDay } = edit;
    checkKind(kind);
    if (prepDay !== null) must(readDate(prepDay, 'prepDay'));
    const before = texts.sourceText === piece.sourceText ? undefined : await maybeSource(act.tx, id);
    const label = `Changed ${quoted(piece.title)}`;
    await undoably(act, { brandId: piece.brandId, label, things: [{ name: 'piece', id }], stepsOf: id }, async () => {
      if (!(await updatePiece(act.tx, id, version, { ...texts, kind, prepDay }))) refused(STALE);
      if (kind !== piece.kind) await replacePrep(act, piece.brandId, id, await prepOfPiece(act, { ...piece, kind }));
      else if (prepDay !== piece.prepDay) await recount(act.tx, piece.brandId, [id], act.now, { isReplanned: true });
    });
    if (before) {
      await updateTypedAt(act.tx, id, act.now);
      await follow(act, id, before, following);
    }
    if (edit.channelIds) await suggest(act, piece, edit.channelIds);
    await act.note({
      brandId: piece.brandId,
      subject: 'piece',
      subjectId: id,
      deed: 'edited',
      detail: { fields: Object.keys(edit) },
    });
    return (await maybePiece(act.tx, id))!;
  });
}

function checkKind(kind: PieceKind): PieceKind {
  if (!PIECE_KINDS.includes(kind))
    refused({ code: 'badKind', field: 'kind', message: 'A piece is of one of the kinds of the list.' });
  return kind;
}

/** Sets a piece aside, with a reason if there is one to keep. */
export function setPieceAside(work: Work, id: string, reason: string): Promise<Result<Piece>> {
  return changePiece(work, id, 'set aside', async (act) => {
    mustFit(reason, TEXT_LIMITS.reason, 'Reason', 'reason');
    return updatePieceSetAside(act.tx, id, act.now, reason.trim());
  });
}

/** Brings a piece back that was set aside. */
export const bringPieceBack = (work: Work, id: string): Promise<Result<Piece>> =>
  changePiece(work, id, 'brought back', (act) => updatePieceSetAside(act.tx, id, null, ''));

/** Deletes a piece that has no live post. It can be restored. */
export function deletePiece(work: Work, id: string): Promise<Result<Piece>> {
  return changePiece(work, id, 'deleted', async (act, piece) => {
    if (piece.livePosts > 0)
      refused({
        code: 'hasPosts',
        message: `“${piece.title}” has ${piece.livePosts} ${piece.livePosts === 1 ? 'post' : 'posts'}. Delete those first, or set the piece aside.`,
      });
    return updatePieceDeleted(act.tx, id, act.now);
  });
}

/** Brings a deleted piece back. */
export const restorePiece = (work: Work, id: string): Promise<Result<Piece>> =>
  changePiece(work, id, 'restored', (act) => updatePieceDeleted(act.tx, id, null));

function changePiece(
  work: Work,
  id: string,
  deed: string,
  change: (act: Doing, piece: Piece) => Promise<boolean>,
): Promise<Result<Piece>> {
  return doing(work, async (act) => {
    const piece = (await maybePiece(act.tx, id)) ?? refused(notFound('idea'));
    await mustMay(act, 'changePieces', piece.brandId);
    const { brandId } = piece;
    const label = `${deed[0]!.toUpperCase()}${deed.slice(1)}: ${quoted(piece.title)}`;
    const isChanged = await undoably(act, { brandId, label, things: [{ name: 'piece', id }] }, () =>
      change(act, piece),
    );
    if (isChanged) await act.note({ brandId, subject: 'piece', subjectId: id, deed });
    return (await maybePiece(act.tx, id))!;
  });
}

/** The piece, if it is there and the actor works for its brand. */
export async function ownPiece(act: Doing, id: string): Promise<Piece> {
  const piece = await maybePiece(act.tx, id);
  if (!piece || piece.deletedAt) refused(notFound('idea'));
  await mustMay(act, 'changePieces', piece.brandId);
  return piece;
}

/** Checks the texts of a piece, each against what is kept of it. */
export function checkTexts(texts: PieceTexts): PieceTexts {
  const read = ofEachPieceText((name) => {
    const { label, keeps, isLink } = pieceText(name);
    mustFit(texts[name], keeps, label, name);
    const text = isLink ? texts[name].trim() : texts[name];
    if (isLink && text !== '' && !isWebLink(text))
      refused({ code: 'badLink', field: name, message: 'A link begins with http:// or https:// and names a host.' });
    return text;
  });
  return { ...read, title: must(readTitle(texts.title)) };
}

async function suggest(
  act: Doing,
  piece: { id: string; brandId: string },
  channelIds: readonly string[],
): Promise<void> {
  await channelsOfBrand(act, piece.brandId, channelIds);
  await replaceSuggestions(act.tx, piece, [...new Set(channelIds)]);
}

/** The channels with these ids, which all have to be the brand's. */
export async function channelsOfBrand(act: Doing, brandId: string, channelIds: readonly string[]) {
  const channels = new Map((await listChannels(act.tx, brandId)).map((channel) => [channel.id, channel]));
  return [...new Set(channelIds)].map(
    (id) =>
      channels.get(id) ??
      refused({
        code: 'foreignChannel',
        field: 'channels',
        message: 'One of the channels belongs to another brand, or is gone. Choose among the channels of this brand.',
      }),
  );
}
