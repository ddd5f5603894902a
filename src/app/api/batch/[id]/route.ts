import { array, bool, object, string } from 'yup';
import { changeBatchDay, dropBatchDay } from '@/usecases/batchDays';
import { fields, maybeText, text, version } from '@/app/server/fields';
import { answer, isId, nothingThere, readBody, refusal, workOfRequest } from '@/app/server/request';

type Context = { params: Promise<{ id: string }> };

const schema = fields({
  version,
  name: maybeText('Name'),
  day: maybeText('Day'),
  startsAt: maybeText('Beginning'),
  stepIds: array(string().uuid('That is no step.').required()).max(200).optional(),
  needs: array(object({ text: text('Need'), done: bool().required() }).noUnknown())
    .max(100)
    .optional(),
});

/** Changes a batch day. */
export async function PATCH(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  if (!isId(id)) return nothingThere('batch day');
  const { work } = await workOfRequest();
  const body = await readBody(request, schema);
  if (!body.ok) return refusal(body.refusal);
  const { version: basedOn, ...change } = body.value;
  return answer(await changeBatchDay(work, id, basedOn, change));
}

/** Calls a batch day off. */
export async function DELETE(_request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  if (!isId(id)) return nothingThere('batch day');
  const { work } = await workOfRequest();
  return answer(await dropBatchDay(work, id));
}
