import { door } from '@/app/server/door';
import type { PrepLine } from '@/core/prep/step';
import { addStep, reorderSteps } from '@/usecases/prep/prep';
import { isId, nothingThere, readBody, refusal } from '@/app/server/request';
import { addedStep, orderedSteps } from '@/app/server/stepFields';
import { answerPost } from '../../answer';

/** Adds a step to a post. */
export const POST = door<{ id: string }>('doSteps', async (request, { params }, { app, work }) => {
  const { id } = await params;
  if (!isId(id)) return nothingThere('post');
  const body = await readBody(request, addedStep);
  if (!body.ok) return refusal(body.refusal);
  return answerPost(app, id, await addStep(work, { postId: id }, body.value as PrepLine));
});

/** Puts the steps of a post in another order. */
export const PATCH = door<{ id: string }>('doSteps', async (request, { params }, { app, work }) => {
  const { id } = await params;
  if (!isId(id)) return nothingThere('post');
  const body = await readBody(request, orderedSteps);
  if (!body.ok) return refusal(body.refusal);
  return answerPost(app, id, await reorderSteps(work, { postId: id }, body.value.ids));
});
