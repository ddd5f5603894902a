import { door } from '@/app/server/door';
import { bool, number, string } from 'yup';
import { changeStep, removeStep, tickStep, type StepChange, type StepOutcome } from '@/usecases/prep/prep';
import type { Result } from '@/core/refusal';
import type { Bimlo } from '@/runtime/bimlo';
import { date, fields, version } from '@/app/server/fields';
import { isId, nothingThere, readBody, refusal } from '@/app/server/request';
import { answerPiece } from '../../pieces/answer';
import { answerPost } from '../../posts/answer';

const changed = fields({
  version,
  title: string(),
  work: string(),
  ownerId: string().uuid('Owner is not a person who works here.').nullable(),
  craft: string().nullable(),
  lead: number().typeError('The lead is a number of days.'),
  leadIn: string(),
  minutes: number().typeError('Minutes are a number.').nullable(),
  note: string(),
  needed: bool(),
  ticksItself: bool(),
  pinned: date.optional(),
});
const ticked = fields({ done: bool().required('Done, or not?') });

/** Changes a step. */
export const PATCH = door<{ id: string }>('doSteps', async (request, { params }, { app, work }) => {
  const { id } = await params;
  if (!isId(id)) return nothingThere('step');
  const body = await readBody(request, changed);
  if (!body.ok) return refusal(body.refusal);
  const { version: basedOn, ...change } = body.value;
  return answerStep(app, await changeStep(work, id, basedOn, change as StepChange));
});

/** Ticks a step, or takes the tick back. */
export const POST = door<{ id: string }>('doSteps', async (request, { params }, { app, work }) => {
  const { id } = await params;
  if (!isId(id)) return nothingThere('step');
  const body = await readBody(request, ticked);
  if (!body.ok) return refusal(body.refusal);
  return answerStep(app, await tickStep(work, id, body.value.done));
});

/** Takes a step away. */
export const DELETE = door<{ id: string }>('doSteps', async (_request, { params }, { app, work }) => {
  const { id } = await params;
  if (!isId(id)) return nothingThere('step');
  return answerStep(app, await removeStep(work, id));
});

function answerStep(app: Bimlo, result: Result<StepOutcome>): Response | Promise<Response> {
  if (!result.ok) return refusal(result.refusal);
  const { postId, pieceId } = result.value;
  return postId === null ? answerPiece(app, pieceId!, result) : answerPost(app, postId, result);
}
