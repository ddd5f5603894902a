import { isSound, isVideo } from '@/core/media/video';
import type { Result } from '@/core/refusal';
import { insertLibraryFiles } from '@/data/media/library';
import {
  deletePieceMedium,
  insertPieceMedium,
  listPieceMedia,
  updatePieceMedia,
  type PieceMedium,
} from '@/data/media/pieceMedia';
import { readPictures } from '@/core/posts/readPost';
import type { Piece } from '@/data/pieces/pieces';
import { quoted } from '@/core/calendar/change';
import { undoably } from '../undo/undoably';
import type { StoredPicture } from '../media/pictures';
import { doing, must, notFound, refused, type Doing, type Work } from '../useCase';
import { ownPiece } from './pieces';

/** Pictures of a piece, at most. */
const MOST = 100;

/** Whether a medium is the recording of its piece. */
const isRecording = (medium: { mime: string }): boolean => isVideo(medium) || isSound(medium);

/** Adds a stored picture to a piece, after those it has, or takes a video or sound for its recording in place of the one it had. */
export function addPieceMedium(work: Work, pieceId: string, stored: StoredPicture): Promise<Result<PieceMedium[]>> {
  return doing(work, async (act) => {
    const piece = await ownPiece(act, pieceId);
    const present = await listPieceMedia(act.tx, pieceId);
    if (!isRecording(stored) && present.length >= MOST)
      refused({ code: 'tooManyPictures', message: `A piece has at most ${MOST} pictures. Remove some first.` });
    await undoably(act, watchedOf(piece, `Added ${quoted(stored.fileName)} to ${quoted(piece.title)}`), async () => {
      if (isRecording(stored)) for (const old of present.filter(isRecording)) await deletePieceMedium(act.tx, old.id);
      await insertPieceMedium(act.tx, {
        ...stored,
        ...{ id: act.ids(), pieceId, brandId: piece.brandId, alt: '', addedAt: act.now },
      });
    });
    // Sounds belong to no post, so the library has no place for them.
    if (!isSound(stored)) await insertLibraryFiles(act.tx, [{ ...stored, brandId: piece.brandId, addedAt: act.now }]);
    return noted(act, piece, 'medium added');
  });
}

/** Describes a picture of a piece, or moves it to another place among them, counted from 0. */
export function changePieceMedium(
  work: Work,
  pieceId: string,
  id: string,
  { alt, place }: { alt?: string | undefined; place?: number | undefined },
): Promise<Result<PieceMedium[]>> {
  return doing(work, async (act) => {
    const piece = await ownPiece(act, pieceId);
    const media = await listPieceMedia(act.tx, pieceId);
    const one = media.find((medium) => medium.id === id) ?? refused(notFound('picture'));
    const [read] = must(readPictures([{ ...one, alt: alt ?? one.alt }]));
    const others = media.filter((medium) => medium !== one);
    const at = Math.max(0, Math.min(others.length, place ?? media.indexOf(one)));
    const ordered = [...others.slice(0, at), read!, ...others.slice(at)];
    await undoably(act, watchedOf(piece, `Changed a picture of ${quoted(piece.title)}`), () =>
      updatePieceMedia(
        act.tx,
        ordered.map((medium, index) => ({ ...medium, position: index + 1 })),
      ),
    );
    return noted(act, piece, 'medium changed');
  });
}

/** Takes a picture or the recording from a piece. */
export function removePieceMedium(work: Work, pieceId: string, id: string): Promise<Result<PieceMedium[]>> {
  return doing(work, async (act) => {
    const piece = await ownPiece(act, pieceId);
    if (!(await listPieceMedia(act.tx, pieceId)).some((medium) => medium.id === id)) refused(notFound('picture'));
    await undoably(act, watchedOf(piece, `Removed a file of ${quoted(piece.title)}`), () =>
      deletePieceMedium(act.tx, id),
    );
    return noted(act, piece, 'medium removed');
  });
}

const watchedOf = ({ brandId, id }: Pick<Piece, 'brandId' | 'id'>, label: string) => ({
  ...{ brandId, label },
  things: [{ name: 'pieceMedia' as const, id }],
});

async function noted(act: Doing, { id, brandId }: { id: string; brandId: string }, deed: string) {
  await act.note({ brandId, subject: 'piece', subjectId: id, deed });
  return listPieceMedia(act.tx, id);
}
