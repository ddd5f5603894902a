import { door } from '@/app/server/door';
import { array, bool, object, string } from 'yup';
import { changeBatchDay, dropBatchDay } from '@/usecases/prep/batchDays';
import { fields, maybeText, text, version } from '@/app/server/fields';
import { answer, isId, nothingThere, readBody, refusal } from '@/app/server/request';

const schema = fields({
  version,
  name: maybeText('Name'),
  day: maybeText('Day'),
  startsAt: maybeText('Beginning'),
  stepIds: array(string().uuid('One of these is not a step.').required()).max(200).optional(),
  needs: array(object({ text: text('Need'), done: bool().required() }).noUnknown())
    .max(100)
    .optional(),
});

/** Changes a batch day. */
export const PATCH = door<{ id: string }>('planBatchDays', async (request, { params }, { work }) => {
  const { id } = await params;
  if (!isId(id)) return nothingThere('batch day');
  const body = await readBody(request, schema);
  if (!body.ok) return refusal(body.refusal);
  const { version: basedOn, ...change } = body.value;
  return answer(await changeBatchDay(work, id, basedOn, change));
});

/** Calls a batch day off. */
export const DELETE = door<{ id: string }>('planBatchDays', async (_request, { params }, { work }) => {
  const { id } = await params;
  if (!isId(id)) return nothingThere('batch day');
  return answer(await dropBatchDay(work, id));
});
