import { door } from '@/app/server/door';
import { previewFields } from '@/app/server/fanOutFields';
import { answer, isId, nothingThere, readBody, refusal } from '@/app/server/request';
import { previewFanOut } from '@/usecases/fanOut/makeFanOut';
import type { FanOutAsk } from '@/usecases/fanOut/planFanOut';

/** Shows the posts a fan-out would make of a piece, with their drafts and dates. Writes nothing. */
export const POST = door<{ id: string }>('changePieces', async (request, { params }, { work }) => {
  const { id } = await params;
  if (!isId(id)) return nothingThere('piece');
  const body = await readBody(request, previewFields);
  return body.ok ? answer(await previewFanOut(work, id, body.value.ask as FanOutAsk)) : refusal(body.refusal);
});
