import { door } from '@/app/server/door';
import { boolean } from 'yup';
import { forgetReading, keepReading } from '@/usecases/calendar/savedViews';
import { fields, id, text } from '@/app/server/fields';
import { answer, readBody, refusal } from '@/app/server/request';

const kept = fields({
  brandId: id('Brand'),
  name: text('Name'),
  shared: boolean().required(),
  address: text('Address'),
});
const forgotten = fields({ id: id('Reading') });

/** Keeps a reading of the calendar. */
export const POST = door('keepViews', async (request, _context, { work }) => {
  const body = await readBody(request, kept);
  return body.ok ? answer(await keepReading(work, body.value)) : refusal(body.refusal);
});

/** Forgets a reading. */
export const DELETE = door('keepViews', async (request, _context, { work }) => {
  const body = await readBody(request, forgotten);
  return body.ok ? answer(await forgetReading(work, body.value.id)) : refusal(body.refusal);
});
