import { makeAgainFields } from '@/app/server/againFields';
import { door } from '@/app/server/door';
import { answer, isId, nothingThere, readBody, refusal } from '@/app/server/request';
import { makeAgain, type ChosenAgain } from '@/usecases/encores/makeAgain';
import type { AgainAsk } from '@/usecases/encores/planAgain';

/** Makes posts of one that is there, as its preview showed them. */
export const POST = door<{ id: string }>('changePosts', async (request, { params }, { work }) => {
  const { id } = await params;
  if (!isId(id)) return nothingThere('post');
  const body = await readBody(request, makeAgainFields);
  if (!body.ok) return refusal(body.refusal);
  return answer(await makeAgain(work, id, body.value.ask as AgainAsk, body.value.posts as ChosenAgain[]));
});
