import { movePost } from '@/usecases/planning';
import { date, fields, time, version } from '@/app/server/fields';
import { isId, nothingThere, readBody, refusal, workOfRequest } from '@/app/server/request';
import { answerPost } from '../../answer';

const schema = fields({ version, date: date.defined(), time: time.optional() });

/** Gives a post another day or time, or none. */
export async function POST(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const { id } = await params;
  if (!isId(id)) return nothingThere('post');
  const { app, work } = await workOfRequest();
  const body = await readBody(request, schema);
  if (!body.ok) return refusal(body.refusal);
  const { version: basedOn, ...to } = body.value;
  const result = await movePost(work, id, basedOn, to);
  return answerPost(app, id, result);
}
