import { EXTRACT_KINDS, type ExtractKind } from '@/core/extracts/extracts';
import type { Result } from '@/core/refusal';
import {
  deleteExtracts,
  insertExtracts,
  listExtracts,
  maybeExtract,
  maybeSource,
  updateExtract,
  type KeptExtract,
} from '@/data/extracts/extracts';
import { ownPiece } from '../pieces/pieces';
import { undoably } from '../undo/undoably';
import { doing, notFound, refused, type Doing, type Work } from '../useCase';
import { keptReading, letBeRead } from './keptReading';

/** Characters of an extract that somebody chooses, at most. */
export const LONGEST_EXTRACT = 4_000;
/** Extracts kept of a piece, accepted and rejected. */
export const MOST_EXTRACTS = 500;

/** What somebody makes of a part of a piece. */
export interface Verdict {
  kind: ExtractKind | 'clip';
  state: KeptExtract['state'];
  /** UTF-16 offsets of the text as it is read. */
  start: number;
  end: number;
  reason: string;
  /** The short name that it has on screen. */
  sign?: string | undefined;
}

/** Accepts a part of a piece, or rejects one that was proposed; the same stretch again changes what was said of it. */
export async function keepExtract(work: Work, pieceId: string, verdict: Verdict): Promise<Result<KeptExtract>> {
  await letBeRead(work.db, pieceId);
  return doing(work, async (act) => {
    const piece = await ownPiece(act, pieceId);
    if (verdict.kind !== 'clip' && !EXTRACT_KINDS.includes(verdict.kind))
      refused({ code: 'badKind', field: 'kind', message: 'That is not a kind of extract.' });
    const stretch = await stretchOf(act, pieceId, verdict);
    const present = await listExtracts(act.tx, pieceId);
    const same = present.find(
      ({ start, end, kind }) =>
        start === stretch.start && end === stretch.end && (kind === 'clip') === (verdict.kind === 'clip'),
    );
    if (same) {
      await undoably(act, watchedOf(piece, same.id, labelOf(verdict)), () =>
        updateExtract(act.tx, { ...same, state: verdict.state }),
      );
      return { ...same, state: verdict.state };
    }
    if (present.length >= MOST_EXTRACTS)
      refused({ code: 'tooMany', message: `A piece keeps ${MOST_EXTRACTS} extracts. Remove some first.` });
    const extract: KeptExtract = {
      ...verdict,
      ...stretch,
      reason: verdict.reason.slice(0, 200),
      sign: verdict.sign ?? '',
      id: act.ids(),
      brandId: piece.brandId,
      pieceId,
      createdAt: act.now,
      createdBy: act.actorId,
    };
    await undoably(act, watchedOf(piece, extract.id, labelOf(verdict)), () => insertExtracts(act.tx, [extract]));
    await act.note({ brandId: piece.brandId, subject: 'piece', subjectId: pieceId, deed: `extract ${verdict.state}` });
    return (await maybeExtract(act.tx, extract.id))!;
  });
}

/** Gives an extract other edges, or another verdict. */
export async function changeExtract(
  work: Work,
  id: string,
  change: Partial<Pick<Verdict, 'state' | 'start' | 'end'>>,
): Promise<Result<KeptExtract>> {
  const present = await maybeExtract(work.db, id);
  if (present) await letBeRead(work.db, present.pieceId);
  return doing(work, async (act) => {
    const extract = await ownExtract(act, id);
    const next = { ...extract, ...change };
    const stretch = await stretchOf(act, extract.pieceId, next);
    await undoably(act, watchedOf(extract, id, 'Changed an extract'), () =>
      updateExtract(act.tx, { ...next, ...stretch }),
    );
    return { ...next, ...stretch };
  });
}

/** Takes an extract away, so that it may be proposed again. */
export function removeExtract(work: Work, id: string): Promise<Result<{ id: string }>> {
  return doing(work, async (act) => {
    const extract = await ownExtract(act, id);
    await undoably(act, watchedOf(extract, id, 'Removed an extract'), () => deleteExtracts(act.tx, [extract.id]));
    return { id };
  });
}

const watchedOf = ({ brandId }: { brandId: string }, id: string, label: string) => ({
  ...{ brandId, label, things: [{ name: 'extract' as const, id }] },
});
const labelOf = ({ state }: Verdict): string => (state === 'accepted' ? 'Accepted an extract' : 'Rejected an extract');

async function ownExtract(act: Doing, id: string): Promise<KeptExtract> {
  const extract = (await maybeExtract(act.tx, id)) ?? refused(notFound('extract'));
  await ownPiece(act, extract.pieceId);
  return extract;
}

/** The stretch without the white space around it, if the text has one there. */
async function stretchOf(
  act: Doing,
  pieceId: string,
  { kind, start, end }: Pick<Verdict, 'kind' | 'start' | 'end'>,
): Promise<Pick<Verdict, 'start' | 'end'>> {
  const source = (await maybeSource(act.tx, pieceId))!;
  const { text } = await keptReading(act.tx, pieceId, source);
  const own = text.slice(start, end);
  const from = start + own.length - own.trimStart().length;
  const to = end - (own.length - own.trimEnd().length);
  if (start < 0 || end > text.length || to <= from)
    refused({
      code: 'noStretch',
      field: 'start',
      message: 'The text has changed there since. Reload the piece, then choose the words again.',
    });
  if (to - from > LONGEST_EXTRACT)
    refused({
      code: 'longExtract',
      field: 'end',
      message: `An extract has ${LONGEST_EXTRACT} characters at most. Choose fewer words.`,
    });
  if (kind === 'clip' && source.cues.length === 0)
    refused({
      code: 'noTimes',
      field: 'kind',
      message: 'This text has no times, so none of it can be a clip. Add its subtitles first.',
    });
  return { start: from, end: to };
}
