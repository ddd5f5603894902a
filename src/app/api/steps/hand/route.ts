import { door } from '@/app/server/door';
import { array, string } from 'yup';
import { handStepsOver } from '@/usecases/prep/prep';
import { fields, id } from '@/app/server/fields';
import { answer, readBody, refusal } from '@/app/server/request';

const schema = fields({
  ids: array(string().uuid('One of these is not a step.').required()).max(500, 'At most 500 steps at once.').required(),
  personId: id('Person'),
});

/** Hands steps over to a person, many at once. */
export const POST = door('doSteps', async (request, _context, { work }) => {
  const body = await readBody(request, schema);
  if (!body.ok) return refusal(body.refusal);
  return answer(await handStepsOver(work, body.value.ids, body.value.personId));
});
