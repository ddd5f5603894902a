import { door } from '@/app/server/door';
import { noteShelfUse } from '@/usecases/shelf/shelf';
import { fields, id } from '@/app/server/fields';
import { answer, readBody, refusal } from '@/app/server/request';

const schema = fields({ itemId: id('Item'), postId: id('Post') });

/** Notes that an item of the shelf was put into a post. */
export const POST = door('keepShelf', async (request, _context, { work }) => {
  const body = await readBody(request, schema);
  return body.ok ? answer(await noteShelfUse(work, body.value.itemId, body.value.postId)) : refusal(body.refusal);
});
