import { array, number, object, string } from 'yup';
import { editBrand, makeBrand, type BrandInput } from '@/usecases/settings';
import { fields, text } from '@/app/server/fields';
import { answer, readBody, refusal, workOfRequest } from '@/app/server/request';

const schema = fields({
  id: string().uuid().nullable().defined(),
  name: text('Name'),
  zone: text('Time zone'),
  weekStart: number().integer().required(),
  daysOff: array(object({ name: text('Name'), from: text('From'), to: text('To') }).noUnknown()).required(),
});

/** Makes a brand, or changes the one named. */
export async function POST(request: Request): Promise<Response> {
  const { work } = await workOfRequest();
  const body = await readBody(request, schema);
  if (!body.ok) return refusal(body.refusal);
  const { id, ...input } = body.value as { id: string | null } & BrandInput;
  return answer(id === null ? await makeBrand(work, input) : await editBrand(work, id, input));
}
