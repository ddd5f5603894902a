import { door } from '@/app/server/door';
import { string } from 'yup';
import { bringPieceBack, deletePiece, restorePiece, setPieceAside } from '@/usecases/pieces/pieces';
import { fields, maybeText } from '@/app/server/fields';
import { answer, isId, nothingThere, readBody, refusal } from '@/app/server/request';

const schema = fields({
  deed: string()
    .oneOf(['setAside', 'bringBack', 'delete', 'restore'] as const, 'That is not an action of the list.')
    .required(),
  reason: maybeText('Reason'),
});

/** Sets a piece aside, brings it back, deletes or restores it. */
export const POST = door<{ id: string }>('changePieces', async (request, { params }, { work }) => {
  const { id } = await params;
  if (!isId(id)) return nothingThere('idea');
  const body = await readBody(request, schema);
  if (!body.ok) return refusal(body.refusal);
  switch (body.value.deed) {
    case 'setAside':
      return answer(await setPieceAside(work, id, body.value.reason ?? ''));
    case 'bringBack':
      return answer(await bringPieceBack(work, id));
    case 'delete':
      return answer(await deletePiece(work, id));
    case 'restore':
      return answer(await restorePiece(work, id));
  }
});
