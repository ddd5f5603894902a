import { string } from 'yup';
import { door } from '@/app/server/door';
import { fields, id } from '@/app/server/fields';
import { fanOutSettingFields } from '@/app/server/fanOutSettingFields';
import { answer, readBody, refusal } from '@/app/server/request';
import { forgetFanOut, setFanOut, type FanOutInput } from '@/usecases/fanOut/fanOuts';

const slug = string().max(60, 'There is no such fan-out.');
const saved = fields({
  brandId: id('Brand'),
  slug: slug.nullable().defined(),
  ...fanOutSettingFields,
});
const forgotten = fields({ brandId: id('Brand'), slug: slug.required() });

/** Sets a fan-out of a brand, or makes a new one. */
export const POST = door('manageBrand', async (request, _context, { work }) => {
  const body = await readBody(request, saved);
  if (!body.ok) return refusal(body.refusal);
  const { brandId, slug: of, ...input } = body.value;
  return answer(await setFanOut(work, brandId, of, input as FanOutInput));
});

/** Takes a fan-out away, or lets the shipped one hold again. */
export const DELETE = door('manageBrand', async (request, _context, { work }) => {
  const body = await readBody(request, forgotten);
  return body.ok ? answer(await forgetFanOut(work, body.value.brandId, body.value.slug)) : refusal(body.refusal);
});
