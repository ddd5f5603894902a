import type { Result } from '@/core/refusal';
import type { Bimlo } from '@/runtime/bimlo';
import { loadSheet, loadSlip } from '@/usecases/views';
import { done, refusal } from '@/app/server/request';

/** Answers a change of a post with what it is now: its outcome, sheet and slip; a refusal with the present sheet. */
export async function answerPost(app: Bimlo, id: string, result: Result<unknown>): Promise<Response> {
  const sheet = await loadSheet(app.db, id);
  if (!result.ok) return refusal(result.refusal, sheet);
  return done({ outcome: result.value, sheet, slip: await loadSlip(app.db, id) });
}
