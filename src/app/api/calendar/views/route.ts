import { door } from '@/app/server/door';
import { boolean } from 'yup';
import { removeView, saveView } from '@/usecases/calendar/savedViews';
import { fields, id, text } from '@/app/server/fields';
import { answer, readBody, refusal } from '@/app/server/request';

const kept = fields({
  brandId: id('Brand'),
  name: text('Name'),
  shared: boolean().required(),
  address: text('Address'),
});
const forgotten = fields({ id: id('Saved view') });

/** Keeps a saved view of the calendar. */
export const POST = door('keepViews', async (request, _context, { work }) => {
  const body = await readBody(request, kept);
  return body.ok ? answer(await saveView(work, body.value)) : refusal(body.refusal);
});

/** Forgets a saved view. */
export const DELETE = door('keepViews', async (request, _context, { work }) => {
  const body = await readBody(request, forgotten);
  return body.ok ? answer(await removeView(work, body.value.id)) : refusal(body.refusal);
});
