import type { PrepLine } from '@/core/prep/step';
import { addStep, renewPrep, reorderSteps } from '@/usecases/prep';
import { isId, nothingThere, readBody, refusal, workOfRequest } from '@/app/server/request';
import { addedStep, orderedSteps } from '@/app/server/stepFields';
import { answerPiece } from '../../answer';

type Context = { params: Promise<{ id: string }> };

/** Adds a step to a piece. */
export async function POST(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  if (!isId(id)) return nothingThere('piece');
  const { app, work } = await workOfRequest();
  const body = await readBody(request, addedStep);
  if (!body.ok) return refusal(body.refusal);
  return answerPiece(app, id, await addStep(work, { pieceId: id }, body.value as PrepLine));
}

/** Puts the steps of a piece in another order. */
export async function PATCH(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  if (!isId(id)) return nothingThere('piece');
  const { app, work } = await workOfRequest();
  const body = await readBody(request, orderedSteps);
  if (!body.ok) return refusal(body.refusal);
  return answerPiece(app, id, await reorderSteps(work, { pieceId: id }, body.value.ids));
}

/** Gives a piece the prep of its kind anew. */
export async function PUT(_request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  if (!isId(id)) return nothingThere('piece');
  const { app, work } = await workOfRequest();
  return answerPiece(app, id, await renewPrep(work, { pieceId: id }));
}
