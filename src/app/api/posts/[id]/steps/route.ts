import { array, string } from 'yup';
import type { PrepLine } from '@/core/prep/step';
import { addStep, reorderSteps } from '@/usecases/prep';
import { fields } from '@/app/server/fields';
import { isId, nothingThere, readBody, refusal, workOfRequest } from '@/app/server/request';
import { stepFields } from '@/app/server/stepFields';
import { answerPost } from '../../answer';

type Context = { params: Promise<{ id: string }> };

const added = fields(stepFields);
const ordered = fields({ ids: array(string().uuid().required()).max(100).required('Which order?') });

/** Adds a step to a post. */
export async function POST(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  if (!isId(id)) return nothingThere('post');
  const { app, work } = await workOfRequest();
  const body = await readBody(request, added);
  if (!body.ok) return refusal(body.refusal);
  return answerPost(app, id, await addStep(work, id, body.value as PrepLine));
}

/** Puts the steps of a post in another order. */
export async function PATCH(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  if (!isId(id)) return nothingThere('post');
  const { app, work } = await workOfRequest();
  const body = await readBody(request, ordered);
  if (!body.ok) return refusal(body.refusal);
  return answerPost(app, id, await reorderSteps(work, id, body.value.ids));
}
