import { door } from '@/app/server/door';
import { string } from 'yup';
import { undoChange } from '@/usecases/calendar/undoChange';
import { fields, id } from '@/app/server/fields';
import { readBody, refusal } from '@/app/server/request';
import { answerChange } from '../answer';

const schema = fields({ brandId: id('Brand'), changeId: string().uuid().nullable().defined() });

/** Undoes a change this person made on the calendar: the one named, or the last. */
export const POST = door('changePosts', async (request, _context, { app, work }) => {
  const body = await readBody(request, schema);
  if (!body.ok) return refusal(body.refusal);
  return answerChange(app, work, await undoChange(work, body.value.brandId, body.value.changeId));
});
