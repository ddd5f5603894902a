import { array, object } from 'yup';
import { STEPS_LIMIT, type PrepLine } from '@/core/prep/step';
import type { Format } from '@/core/rulesheets/types';
import { forgetPrepSheet, setPrepSheet } from '@/usecases/prep';
import { fields, format, id } from '@/app/server/fields';
import { answer, readBody, refusal, workOfRequest } from '@/app/server/request';
import { stepFields } from '@/app/server/stepFields';

const saved = fields({
  brandId: id('Brand'),
  format: format.required(),
  lines: array(object(stepFields).noUnknown()).max(STEPS_LIMIT, `At most ${STEPS_LIMIT} steps.`).required(),
});
const forgotten = fields({ brandId: id('Brand'), format: format.required() });

/** Sets the prep sheet of a format. */
export async function POST(request: Request): Promise<Response> {
  const { work } = await workOfRequest();
  const body = await readBody(request, saved);
  if (!body.ok) return refusal(body.refusal);
  const { brandId, format: of, lines } = body.value;
  return answer(await setPrepSheet(work, brandId, of as Format, lines as PrepLine[]));
}

/** Lets the prep sheet that ships hold again. */
export async function DELETE(request: Request): Promise<Response> {
  const { work } = await workOfRequest();
  const body = await readBody(request, forgotten);
  if (!body.ok) return refusal(body.refusal);
  return answer(await forgetPrepSheet(work, body.value.brandId, body.value.format as Format));
}
