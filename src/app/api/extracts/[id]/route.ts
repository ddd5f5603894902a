import { mixed, number } from 'yup';
import { door } from '@/app/server/door';
import { fields } from '@/app/server/fields';
import { answer, isId, nothingThere, readBody, refusal } from '@/app/server/request';
import { changeExtract, removeExtract, type Verdict } from '@/usecases/extracts/extracts';

const change = fields({
  state: mixed<Verdict['state']>().oneOf(['accepted', 'rejected'], 'Accepted or rejected?').optional(),
  start: number().integer().min(0).optional(),
  end: number().integer().min(0).optional(),
});

/** Gives an extract other edges, or another verdict. */
export const PATCH = door<{ id: string }>('changePieces', async (request, { params }, { work }) => {
  const { id } = await params;
  if (!isId(id)) return nothingThere('extract');
  const body = await readBody(request, change);
  if (!body.ok) return refusal(body.refusal);
  const given = Object.fromEntries(Object.entries(body.value).filter(([, value]) => value !== undefined));
  return answer(await changeExtract(work, id, given));
});

/** Takes an extract away. */
export const DELETE = door<{ id: string }>('changePieces', async (_request, { params }, { work }) => {
  const { id } = await params;
  return isId(id) ? answer(await removeExtract(work, id)) : nothingThere('extract');
});
