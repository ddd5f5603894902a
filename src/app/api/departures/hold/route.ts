import { boolean } from 'yup';
import { door } from '@/app/server/door';
import { fields, id, text } from '@/app/server/fields';
import { answer, readBody, refusal } from '@/app/server/request';
import { holdAll, releaseAll } from '@/usecases/delivery/holdAll';

const held = fields({ brandId: id('Brand'), reason: text('Reason') });
const released = fields({ brandId: id('Brand'), spread: boolean().required('spread is missing: true or false.') });

/** Holds all of a brand, with a reason. */
export const POST = door('manageBrand', async (request, _context, { work }) => {
  const body = await readBody(request, held);
  if (!body.ok) return refusal(body.refusal);
  return answer(await holdAll(work, body.value.brandId, body.value.reason));
});

/** Lets all of a brand go again; on demand what had its time meanwhile is spread over the next openings before. */
export const DELETE = door('manageBrand', async (request, _context, { app, work }) => {
  const body = await readBody(request, released);
  if (!body.ok) return refusal(body.refusal);
  const result = await releaseAll(work, body.value.brandId, body.value.spread);
  if (result.ok) void app.worker.look();
  return answer(result);
});
