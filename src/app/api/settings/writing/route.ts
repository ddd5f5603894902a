import { string } from 'yup';
import { door } from '@/app/server/door';
import { fields, id, text } from '@/app/server/fields';
import { answer, readBody, refusal } from '@/app/server/request';
import { setWritingService, switchWritingServiceOff } from '@/usecases/writing/service';

const saved = fields({ brandId: id('Brand'), address: text('Address'), key: string().nullable().defined() });
const off = fields({ brandId: id('Brand') });

/** Allows one address as the writing service of a brand. */
export const POST = door('manageBrand', async (request, _context, { work }) => {
  const body = await readBody(request, saved);
  if (!body.ok) return refusal(body.refusal);
  const { brandId, address, key } = body.value;
  return answer(await setWritingService(work, brandId, { address, key }));
});

/** Switches the writing service of a brand off. */
export const DELETE = door('manageBrand', async (request, _context, { work }) => {
  const body = await readBody(request, off);
  return body.ok ? answer(await switchWritingServiceOff(work, body.value.brandId)) : refusal(body.refusal);
});
