import { door } from '@/app/server/door';
import { array, mixed, object } from 'yup';
import { STEPS_LIMIT, type PrepLine } from '@/core/prep/step';
import { PREP_SUBJECTS, type PrepSubject } from '@/core/prep/subject';
import { forgetPrepSheet, setPrepSheet } from '@/usecases/prep/prep';
import { fields, id } from '@/app/server/fields';
import { answer, readBody, refusal } from '@/app/server/request';
import { stepFields } from '@/app/server/stepFields';

const subject = mixed<PrepSubject>()
  .oneOf([...PREP_SUBJECTS], 'There is no such format or kind of piece.')
  .required();
const saved = fields({
  brandId: id('Brand'),
  subject,
  lines: array(object(stepFields).noUnknown()).max(STEPS_LIMIT, `At most ${STEPS_LIMIT} steps.`).required(),
});
const forgotten = fields({ brandId: id('Brand'), subject });

/** Sets the prep sheet of a format or kind of piece. */
export const POST = door('manageBrand', async (request, _context, { work }) => {
  const body = await readBody(request, saved);
  if (!body.ok) return refusal(body.refusal);
  const { brandId, subject: of, lines } = body.value;
  return answer(await setPrepSheet(work, brandId, of, lines as PrepLine[]));
});

/** Lets the prep sheet that ships hold again. */
export const DELETE = door('manageBrand', async (request, _context, { work }) => {
  const body = await readBody(request, forgotten);
  if (!body.ok) return refusal(body.refusal);
  return answer(await forgetPrepSheet(work, body.value.brandId, body.value.subject));
});
