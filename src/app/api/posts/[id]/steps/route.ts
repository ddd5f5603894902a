import type { PrepLine } from '@/core/prep/step';
import { addStep, reorderSteps } from '@/usecases/prep';
import { isId, nothingThere, readBody, refusal, workOfRequest } from '@/app/server/request';
import { addedStep, orderedSteps } from '@/app/server/stepFields';
import { answerPost } from '../../answer';

type Context = { params: Promise<{ id: string }> };

/** Adds a step to a post. */
export async function POST(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  if (!isId(id)) return nothingThere('post');
  const { app, work } = await workOfRequest();
  const body = await readBody(request, addedStep);
  if (!body.ok) return refusal(body.refusal);
  return answerPost(app, id, await addStep(work, { postId: id }, body.value as PrepLine));
}

/** Puts the steps of a post in another order. */
export async function PATCH(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  if (!isId(id)) return nothingThere('post');
  const { app, work } = await workOfRequest();
  const body = await readBody(request, orderedSteps);
  if (!body.ok) return refusal(body.refusal);
  return answerPost(app, id, await reorderSteps(work, { postId: id }, body.value.ids));
}
