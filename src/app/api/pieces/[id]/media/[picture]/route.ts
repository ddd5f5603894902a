import { number } from 'yup';
import { door } from '@/app/server/door';
import { fields, maybeText } from '@/app/server/fields';
import { answer, isId, nothingThere, readBody, refusal } from '@/app/server/request';
import { changePieceMedium, removePieceMedium } from '@/usecases/pieces/pieceMedia';

type Params = { id: string; picture: string };
const schema = fields({ alt: maybeText('Alt text'), place: number().integer().min(0).optional() });

/** Describes a picture of a piece, or moves it. */
export const PATCH = door<Params>('changePieces', async (request, { params }, { work }) => {
  const { id, picture } = await params;
  if (!isId(id) || !isId(picture)) return nothingThere('picture');
  const body = await readBody(request, schema);
  return body.ok ? answer(await changePieceMedium(work, id, picture, body.value)) : refusal(body.refusal);
});

/** Takes a picture or the recording from a piece. */
export const DELETE = door<Params>('changePieces', async (_request, { params }, { work }) => {
  const { id, picture } = await params;
  if (!isId(id) || !isId(picture)) return nothingThere('picture');
  return answer(await removePieceMedium(work, id, picture));
});
