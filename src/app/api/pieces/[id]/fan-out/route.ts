import { door } from '@/app/server/door';
import { makeFields } from '@/app/server/fanOutFields';
import { answer, isId, nothingThere, readBody, refusal } from '@/app/server/request';
import { makeFanOut, type ChosenPost } from '@/usecases/fanOut/makeFanOut';
import type { FanOutAsk } from '@/usecases/fanOut/planFanOut';

/** Makes the posts of a fan-out that were chosen in its preview. */
export const POST = door<{ id: string }>('changePieces', async (request, { params }, { work }) => {
  const { id } = await params;
  if (!isId(id)) return nothingThere('piece');
  const body = await readBody(request, makeFields);
  if (!body.ok) return refusal(body.refusal);
  return answer(await makeFanOut(work, id, body.value.ask as FanOutAsk, body.value.posts as ChosenPost[]));
});
