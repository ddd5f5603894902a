import { door } from '@/app/server/door';
import { ICAL_LIMIT_BYTES } from '@/core/exchange/calendarFile';
import { bringDates, removeDates, renameDates } from '@/usecases/calendar/knownDates';
import { fields, id, text } from '@/app/server/fields';
import { answer, isId, nothingThere, readBody, refusal } from '@/app/server/request';
import { readUpload } from '@/app/server/upload';

const renamed = fields({ brandId: id('Brand'), id: id('File'), name: text('Name') });
const removed = fields({ brandId: id('Brand'), id: id('File') });

/** Brings an iCalendar file of dates to plan around in: `file`, `brandId`, and `name` if wanted. */
export const POST = door('keepKnownDates', async (request, _context, { work }) => {
  const upload = await readUpload(request, ICAL_LIMIT_BYTES);
  if (!upload.ok) return refusal(upload.refusal);
  const { bytes, fileName, field } = upload.value;
  if (!isId(field('brandId'))) return nothingThere('brand');
  return answer(await bringDates(work, field('brandId'), bytes, fileName, field('name')));
});

/** Gives a file of dates another name. */
export const PATCH = door('keepKnownDates', async (request, _context, { work }) => {
  const body = await readBody(request, renamed);
  if (!body.ok) return refusal(body.refusal);
  return answer(await renameDates(work, body.value.brandId, body.value.id, body.value.name));
});

/** Takes a file of dates out again. */
export const DELETE = door('keepKnownDates', async (request, _context, { work }) => {
  const body = await readBody(request, removed);
  return body.ok ? answer(await removeDates(work, body.value.brandId, body.value.id)) : refusal(body.refusal);
});
