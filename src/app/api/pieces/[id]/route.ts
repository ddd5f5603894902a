import { door } from '@/app/server/door';
import { mixed } from 'yup';
import { PIECE_KINDS, type PieceKind } from '@/core/pieces/kinds';
import { ofEachPieceText, pieceText } from '@/core/pieces/texts';
import { SETTLE_CORRECTIONS_JOB } from '@/usecases/corrections/settleCorrections';
import { editPiece } from '@/usecases/pieces/pieces';
import { date, fields, ids, maybeText, version } from '@/app/server/fields';
import { isId, nothingThere, readBody, refusal } from '@/app/server/request';
import { answerPiece } from '../answer';

const schema = fields({
  version,
  ...ofEachPieceText((name) => maybeText(pieceText(name).label)),
  kind: mixed<PieceKind>().oneOf([...PIECE_KINDS], 'There is no such kind of piece.'),
  prepDay: date.optional(),
  channelIds: ids('Channels').optional(),
});

/** Edits a piece. */
export const PATCH = door<{ id: string }>('changePieces', async (request, { params }, { app, work }) => {
  const { id } = await params;
  if (!isId(id)) return nothingThere('idea');
  const body = await readBody(request, schema);
  if (!body.ok) return refusal(body.refusal);
  const { version: basedOn, ...edit } = body.value;
  const edited = await editPiece(work, id, basedOn, edit);
  if (edited.ok) await app.jobs.runSoon(SETTLE_CORRECTIONS_JOB);
  return answerPiece(app, id, edited);
});
