import { quoted } from '@/core/calendar/change';
import { TEXT_LIMITS } from '@/core/pieces/piece';
import { nameOfLeftOut } from '@/core/reading/leftOut';
import type { ReadAs } from '@/core/reading/readAs';
import type { Result } from '@/core/refusal';
import { maybeSource, updateHowRead, type KeptSource } from '@/data/extracts/extracts';
import { maybePiece, updatePiece, type Piece } from '@/data/pieces/pieces';
import { ownPiece } from '../pieces/pieces';
import { replacingSource } from '../undo/sourceTexts';
import { undoably } from '../undo/undoably';
import { doing, mustFit, refused, STALE, type Work } from '../useCase';
import { follow, prepareFollowing } from './followSource';

/** How a text is to be read from now on: as Markdown or plain text, or with something taken in or left out that it names. */
export type OtherReading = { as: ReadAs } | { takeIn: string } | { leaveOut: string };

/** Reads a piece's text otherwise; what was accepted of it stays where its words still are. */
export async function readOtherwise(
  work: Work,
  pieceId: string,
  version: number,
  change: OtherReading,
): Promise<Result<Piece>> {
  const present = await maybeSource(work.db, pieceId);
  const wanted = present && readSo(present, change);
  const following = wanted ? await prepareFollowing(work.db, pieceId, wanted) : null;
  return doing(work, async (act) => {
    const piece = await ownPiece(act, pieceId);
    const before = (await maybeSource(act.tx, pieceId))!;
    const { source, how } = readSo(before, change);
    mustFit(source, TEXT_LIMITS.sourceText, 'Source text', 'sourceText');
    const label = `Changed how ${quoted(piece.title)} is read`;
    await undoably(
      act,
      { brandId: piece.brandId, label, things: [{ name: 'piece', id: pieceId }], stepsOf: pieceId },
      () =>
        replacingSource(act, pieceId, async () => {
          if (!(await updatePiece(act.tx, pieceId, version, { ...piece, sourceText: source }))) refused(STALE);
          await follow(act, pieceId, before, following);
          await updateHowRead(act.tx, pieceId, how);
        }),
      (changed) => changed,
    );
    await act.note({ brandId: piece.brandId, subject: 'piece', subjectId: pieceId, deed: 'read otherwise' });
    return (await maybePiece(act.tx, pieceId))!;
  });
}

/** A text with how it is read changed; what was no part of it since it was brought in is put to its end. */
function readSo({ source, how }: KeptSource, change: OtherReading): Pick<KeptSource, 'source' | 'how'> {
  if ('as' in change) return { source, how: { ...how, as: change.as } };
  if ('leaveOut' in change)
    return { source, how: { ...how, taken: how.taken.filter((name) => name !== change.leaveOut) } };
  const name = change.takeIn;
  const apart = how.leftOut.find((one) => nameOfLeftOut(one) === name);
  if (apart) {
    const leftOut = how.leftOut.filter((one) => nameOfLeftOut(one) !== name);
    return { source: `${source.trimEnd()}\n\n${apart.text}\n`, how: { ...how, leftOut } };
  }
  return how.taken.includes(name) ? { source, how } : { source, how: { ...how, taken: [...how.taken, name] } };
}
