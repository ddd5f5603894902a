import { string } from 'yup';
import { door } from '@/app/server/door';
import { fields } from '@/app/server/fields';
import { answer, isId, nothingThere, readBody, refusal } from '@/app/server/request';
import { LASTING, type Lasting } from '@/core/encores/encores';
import { sayLasting } from '@/usecases/encores/makeAgain';

const schema = fields({
  lasting: string()
    .oneOf([...LASTING], 'Say “” (when it did well) or “dated”.')
    .defined(),
});

/** Says of a post whether it may come again. */
export const POST = door<{ id: string }>('changePosts', async (request, { params }, { work }) => {
  const { id } = await params;
  if (!isId(id)) return nothingThere('post');
  const body = await readBody(request, schema);
  if (!body.ok) return refusal(body.refusal);
  return answer(await sayLasting(work, id, body.value.lasting as Lasting));
});
