import type { Result } from '@/core/refusal';
import type { Bimlo } from '@/runtime/bimlo';
import type { ChangeOutcome } from '@/usecases/changes';
import { loadShownSlips } from '@/usecases/views';
import { done, refusal } from '@/app/server/request';

/** Answers a change on the calendar with its outcome and the slips as they are now; those no longer shown by their ids. */
export async function answerChange(app: Bimlo, result: Result<ChangeOutcome>): Promise<Response> {
  if (!result.ok) return refusal(result.refusal);
  const outcome = result.value;
  const slips = await loadShownSlips(app.db, [...outcome.postIds, ...outcome.refused.map(({ postId }) => postId)]);
  const shown = new Set(slips.map((slip) => slip.id));
  return done({ outcome, slips, gone: outcome.postIds.filter((id) => !shown.has(id)) });
}
