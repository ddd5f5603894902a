import type { Result } from '@/core/refusal';
import type { Bimlo } from '@/runtime/bimlo';
import { loadSheet, loadSlip } from '@/usecases/posts/loadPosts';
import { done, refusal } from '@/app/server/request';

/**
 * Answers a change of a post with what it is now: its outcome, sheet and slip; a refusal with the present sheet, but for
 * those who may not look at it.
 */
export async function answerPost(app: Bimlo, id: string, result: Result<unknown>): Promise<Response> {
  if (!result.ok)
    return result.refusal.code === 'notYours'
      ? refusal(result.refusal)
      : refusal(result.refusal, await loadSheet(app.db, id));
  return done({ outcome: result.value, sheet: await loadSheet(app.db, id), slip: await loadSlip(app.db, id) });
}
