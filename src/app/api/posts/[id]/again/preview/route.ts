import { previewAgainFields } from '@/app/server/againFields';
import { door } from '@/app/server/door';
import { answer, isId, nothingThere, readBody, refusal } from '@/app/server/request';
import { previewAgain } from '@/usecases/encores/makeAgain';
import type { AgainAsk } from '@/usecases/encores/planAgain';

/** Shows the posts that using one again would make, with their dates and first lines. Writes nothing. */
export const POST = door<{ id: string }>('changePosts', async (request, { params }, { work }) => {
  const { id } = await params;
  if (!isId(id)) return nothingThere('post');
  const body = await readBody(request, previewAgainFields);
  return body.ok ? answer(await previewAgain(work, id, body.value.ask as AgainAsk)) : refusal(body.refusal);
});
