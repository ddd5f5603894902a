import { door } from '@/app/server/door';
import { movePost } from '@/usecases/posts/planPosts';
import { date, fields, time, version } from '@/app/server/fields';
import { isId, nothingThere, readBody, refusal } from '@/app/server/request';
import { answerPost } from '../../answer';

const schema = fields({ version, date: date.defined(), time: time.optional(), until: time.optional() });

/** Gives a post another day or time, or none. */
export const POST = door<{ id: string }>('changePosts', async (request, { params }, { app, work }) => {
  const { id } = await params;
  if (!isId(id)) return nothingThere('post');
  const body = await readBody(request, schema);
  if (!body.ok) return refusal(body.refusal);
  const { version: basedOn, ...to } = body.value;
  const result = await movePost(work, id, basedOn, to);
  return answerPost(app, id, result);
});
