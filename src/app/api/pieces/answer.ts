import type { Result } from '@/core/refusal';
import { maybePiece } from '@/usecases/pieces/reading';
import { listStepsOf } from '@/usecases/prep/reading';
import type { Bimlo } from '@/runtime/bimlo';
import { sheetStep } from '@/usecases/posts/loadPosts';
import { done, refusal } from '@/app/server/request';

/** Answers a change of a piece with what it is now, and its own prep; a refusal with the same beside it, but for those who may not look at it. */
export async function answerPiece(app: Bimlo, id: string, result: Result<unknown>): Promise<Response> {
  if (!result.ok && result.refusal.code === 'notYours') return refusal(result.refusal);
  const [piece, steps] = await Promise.all([maybePiece(app.db, id), listStepsOf(app.db, [id])]);
  const present = { piece, steps: steps.map(sheetStep) };
  return result.ok ? done(present) : refusal(result.refusal, present);
}
