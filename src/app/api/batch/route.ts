import { door } from '@/app/server/door';
import { array, string } from 'yup';
import { makeBatchDay, type BatchInput } from '@/usecases/prep/batchDays';
import { fields, id, text } from '@/app/server/fields';
import { answer, readBody, refusal } from '@/app/server/request';

const schema = fields({
  brandId: id('Brand'),
  work: string().required('Choose a kind of work.'),
  name: text('Name'),
  day: text('Day'),
  startsAt: text('Beginning'),
  stepIds: array(string().uuid('One of these is not a step.').required()).max(200).required(),
});

/** Makes a batch day. */
export const POST = door('planBatchDays', async (request, _context, { work }) => {
  const body = await readBody(request, schema);
  if (!body.ok) return refusal(body.refusal);
  const { brandId, ...input } = body.value;
  return answer(await makeBatchDay(work, brandId, input as BatchInput));
});
