import { door } from '@/app/server/door';
import { writingFields } from '@/app/server/fanOutFields';
import { answer, isId, nothingThere, readBody, refusal } from '@/app/server/request';
import type { FanOutAsk } from '@/usecases/fanOut/planFanOut';
import { offerWriting, writeFanOut } from '@/usecases/writing/writeFanOut';

/**
 * Shows what the team's writing service would be asked for the posts of a fan-out; with the address that was shown, `sendTo`, asks it.
 */
export const POST = door<{ id: string }>('changePosts', async (request, { params }, { work }) => {
  const { id } = await params;
  if (!isId(id)) return nothingThere('piece');
  const body = await readBody(request, writingFields);
  if (!body.ok) return refusal(body.refusal);
  const { ask, keys, sendTo } = body.value as { ask: FanOutAsk; keys: string[] | null; sendTo?: string };
  return answer(
    sendTo === undefined ? await offerWriting(work, id, ask, keys) : await writeFanOut(work, id, ask, sendTo, keys),
  );
});
