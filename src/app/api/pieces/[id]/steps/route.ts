import { door } from '@/app/server/door';
import type { PrepLine } from '@/core/prep/step';
import { addStep, renewPrep, reorderSteps } from '@/usecases/prep/prep';
import { isId, nothingThere, readBody, refusal } from '@/app/server/request';
import { addedStep, orderedSteps } from '@/app/server/stepFields';
import { answerPiece } from '../../answer';

/** Adds a step to a piece. */
export const POST = door<{ id: string }>('doSteps', async (request, { params }, { app, work }) => {
  const { id } = await params;
  if (!isId(id)) return nothingThere('piece');
  const body = await readBody(request, addedStep);
  if (!body.ok) return refusal(body.refusal);
  return answerPiece(app, id, await addStep(work, { pieceId: id }, body.value as PrepLine));
});

/** Puts the steps of a piece in another order. */
export const PATCH = door<{ id: string }>('doSteps', async (request, { params }, { app, work }) => {
  const { id } = await params;
  if (!isId(id)) return nothingThere('piece');
  const body = await readBody(request, orderedSteps);
  if (!body.ok) return refusal(body.refusal);
  return answerPiece(app, id, await reorderSteps(work, { pieceId: id }, body.value.ids));
});

/** Gives a piece the prep of its kind anew. */
export const PUT = door<{ id: string }>('doSteps', async (_request, { params }, { app, work }) => {
  const { id } = await params;
  if (!isId(id)) return nothingThere('piece');
  return answerPiece(app, id, await renewPrep(work, { pieceId: id }));
});
