import type { Result } from '@/core/refusal';
import type { Bimlo } from '@/runtime/bimlo';
import type { ChangeOutcome } from '@/core/calendar/changeOutcome';
import type { Work } from '@/usecases/useCase';
import { maybeActor } from '@/usecases/people/reading';
import { loadShownSlips } from '@/usecases/posts/loadPosts';
import { done, refusal } from '@/app/server/request';

/** Answers a change on the calendar with its outcome and the slips as they are now, of the brands one works for; those no longer shown by their ids. */
export async function answerChange(
  app: Bimlo,
  { actorId }: Pick<Work, 'actorId'>,
  result: Result<ChangeOutcome>,
): Promise<Response> {
  if (!result.ok) return refusal(result.refusal);
  const outcome = result.value;
  const ids = [...outcome.postIds, ...outcome.refused.flatMap(({ postId }) => postId ?? [])];
  const theirs = new Set((await maybeActor(app.db, actorId))?.brandIds);
  const slips = (await loadShownSlips(app.db, ids)).filter(({ brandId }) => theirs.has(brandId));
  const shown = new Set(slips.map((slip) => slip.id));
  return done({ outcome, slips, gone: outcome.postIds.filter((id) => !shown.has(id)) });
}
