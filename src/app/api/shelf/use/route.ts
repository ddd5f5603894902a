import { noteShelfUse } from '@/usecases/shelf';
import { fields, id } from '@/app/server/fields';
import { answer, readBody, refusal, workOfRequest } from '@/app/server/request';

const schema = fields({ itemId: id('Item'), postId: id('Post') });

/** Notes that an item of the shelf was put into a post. */
export async function POST(request: Request): Promise<Response> {
  const { work } = await workOfRequest();
  const body = await readBody(request, schema);
  return body.ok ? answer(await noteShelfUse(work, body.value.itemId, body.value.postId)) : refusal(body.refusal);
}
