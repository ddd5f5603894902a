import { quoted } from '@/core/calendar/change';
import { TEXT_LIMITS } from '@/core/pieces/piece';
import type { AboutInFile } from '@/core/pieces/pieceFile';
import { ABOUT_FIELDS } from '@/core/pieces/texts';
import type { SourceText } from '@/core/reading/readSource';
import { countBehindText } from '@/core/prep/behindText';
import type { Result } from '@/core/refusal';
import { cleanText } from '@/core/text/clean';
import { localOf } from '@/core/time/plan';
import { oneBrand } from '@/data/brands/brands';
import { maybeSource, updateHowRead } from '@/data/extracts/extracts';
import { maybePiece, updatePiece, updateTypedAt, type Piece } from '@/data/pieces/pieces';
import { listStepsOf, tickSteps } from '@/data/prep/steps';
import { prepOfPiece, replacePrep } from '../prep/givePrep';
import { checkTexts, ownPiece } from '../pieces/pieces';
import { replacingSource } from '../undo/sourceTexts';
import { undoably } from '../undo/undoably';
import { doing, mustFit, refused, STALE, type Doing, type Work } from '../useCase';
import { follow, prepareFollowing } from './followSource';

export { readSourceFile } from '@/data/pool/readFiles';

/** Bytes of a text that is brought in for a piece. */
export const SOURCE_LIMIT_BYTES = 12_000_000;
/** The refusal of a larger one. */
export const SOURCE_TOO_BIG = {
  code: 'tooBig',
  field: 'file',
  message: 'That file is larger than Bimlo takes as a text (12 MB).',
} as const;

/** Makes a text that was read the source text of a piece, with its times; what was accepted of the one before stays where its words still stand. */
export async function bringSource(
  work: Work,
  pieceId: string,
  version: number,
  read: SourceText,
): Promise<Result<Piece>> {
  const source = cleanText(read.source);
  const isKept = source.length <= TEXT_LIMITS.sourceText;
  const times = { cues: [...read.cues], isWordTimed: read.isWordTimed, how: read.how };
  const following = isKept ? await prepareFollowing(work.db, pieceId, { source, ...times }) : null;
  return doing(work, async (act) => {
    const piece = await ownPiece(act, pieceId);
    mustFit(source, TEXT_LIMITS.sourceText, 'Source text', 'sourceText');
    if (source.trim() === '')
      refused({ code: 'noText', field: 'file', message: 'There is no text in it, so nothing was taken from it.' });
    const before = (await maybeSource(act.tx, pieceId))!;
    const about = read.about ? mayBeAbout(piece, before.source, read.about) : {};
    const deed = before.source.trim() === '' ? 'Brought in the text of' : 'Replaced the text of';
    const watched = { brandId: piece.brandId, label: `${deed} ${quoted(piece.title)}` };
    await undoably(
      act,
      { ...watched, things: [{ name: 'piece', id: pieceId }], stepsOf: pieceId },
      () =>
        replacingSource(act, pieceId, async () => {
          if (!(await updatePiece(act.tx, pieceId, version, { ...piece, ...about, sourceText: source })))
            refused(STALE);
          if (about.kind !== undefined && about.kind !== piece.kind)
            await replacePrep(act, piece.brandId, pieceId, await prepOfPiece(act, { ...piece, kind: about.kind }));
          await updateTypedAt(act.tx, pieceId, null);
          await follow(act, pieceId, before, following);
          await updateHowRead(act.tx, pieceId, read.how);
          if (before.source.trim() === '') await tickBehindText(act, piece, read.cues.length > 0);
        }),
      (changed) => changed,
    );
    await act.note({
      brandId: piece.brandId,
      subject: 'piece',
      subjectId: pieceId,
      deed: 'text brought in',
      detail: { cues: read.cues.length },
    });
    return (await maybePiece(act.tx, pieceId))!;
  });
}

/** What a file says about a piece that has no text yet: it takes the place of what stands there. */
function mayBeAbout(piece: Piece, sourceBefore: string, about: AboutInFile): AboutInFile {
  if (sourceBefore.trim() !== '') return {};
  const { kind, ...texts } = about;
  const checked = checkTexts({ ...piece, ...texts });
  return { ...Object.fromEntries(ABOUT_FIELDS.map((name) => [name, checked[name]])), ...(kind && { kind }) };
}

/** The steps of a piece that lie before its text are done, now that it is there. */
async function tickBehindText(act: Doing, { id, brandId }: Piece, isTimed: boolean): Promise<void> {
  const steps = await listStepsOf(act.tx, [id]);
  const behind = steps.slice(0, countBehindText(steps, isTimed)).filter(({ doneAt }) => doneAt === null);
  if (behind.length === 0) return;
  const { zone } = await oneBrand(act.tx, brandId);
  await tickSteps(
    act.tx,
    behind.map((step) => step.id),
    { at: act.now, on: localOf(act.now, zone).date, by: act.actorId },
  );
}
