import { mixed, number, string } from 'yup';
import { door } from '@/app/server/door';
import { fields } from '@/app/server/fields';
import { answerAsItGoes } from '@/app/server/progress';
import { answer, isId, nothingThere, readBody, refusal } from '@/app/server/request';
import { EXTRACT_KINDS } from '@/core/extracts/extracts';
import { keepExtract, type Verdict } from '@/usecases/extracts/extracts';
import { loadReading } from '@/usecases/extracts/reading';
import { maybePiece } from '@/usecases/pieces/reading';
import { ofBrand } from '@/usecases/rights/readFor';

const offset = number().typeError('An offset is a number.').integer().min(0).required();
const verdict = fields({
  kind: mixed<Verdict['kind']>()
    .oneOf([...EXTRACT_KINDS, 'clip'], 'That is not a kind of extract.')
    .required(),
  state: mixed<Verdict['state']>().oneOf(['accepted', 'rejected'], 'Accepted or rejected?').required(),
  start: offset,
  end: offset,
  reason: string().defined(),
  sign: string().max(8).optional(),
});

/** A piece's text to be read, with what was accepted and rejected of it, and what is proposed beside; says how far it is if asked. */
export const GET = door<{ id: string }>('look', async (request, { params }, { work }) => {
  const { id } = await params;
  const piece = isId(id) ? await maybePiece(work.db, id) : undefined;
  if (!piece || piece.deletedAt) return nothingThere('piece');
  return answerAsItGoes(request, async (watch) => {
    const read = await ofBrand(work, piece.brandId, () => loadReading(work.db, id, watch));
    return read.ok ? read.value : read;
  });
});

/** Accepts a part of a piece, or rejects one that was proposed. */
export const POST = door<{ id: string }>('changePieces', async (request, { params }, { work }) => {
  const { id } = await params;
  if (!isId(id)) return nothingThere('piece');
  const body = await readBody(request, verdict);
  return body.ok ? answer(await keepExtract(work, id, body.value as Verdict)) : refusal(body.refusal);
});
