import type { TakenApart } from '@/core/extracts/takeApart';
import type { FanOutGround } from '@/core/fanOut/ground';
import type { draftFanOut } from '@/core/fanOut/draftFanOut';
import { refuse, type Result } from '@/core/refusal';
import { inPool, StoppedError, TooMuchWorkError, type Watch } from './pool';
import type { CorrectedPost } from '@/core/corrections/correctPost';
import type { PostsToCorrect, TextToTakeApart } from './tasks';

/** How long a text may take to be taken apart, or drafted from, in milliseconds. */
const LIMIT_MS = 20_000;

/** Takes a text apart on a thread of the pool; refused where it takes too long, or is called off. */
export const takeApartInPool = (given: TextToTakeApart, watch?: Watch): Promise<Result<TakenApart>> =>
  inTime(() => inPool<TakenApart>('apart', given, LIMIT_MS, watch));

/** Drafts the posts of a fan-out on a thread of the pool; refused where it takes too long. */
export const draftInPool = (ground: FanOutGround): Promise<Result<ReturnType<typeof draftFanOut>>> =>
  inTime(() => inPool<ReturnType<typeof draftFanOut>>('fanOut', { ground }, LIMIT_MS));

/** Corrects posts as their piece was corrected, on a thread of the pool; refused where it takes too long. */
export const correctInPool = (given: PostsToCorrect): Promise<Result<(CorrectedPost | null)[]>> =>
  inTime(() => inPool<(CorrectedPost | null)[]>('corrections', given, LIMIT_MS));

async function inTime<T>(work: () => Promise<T>): Promise<Result<T>> {
  try {
    return { ok: true, value: await work() };
  } catch (error) {
    if (error instanceof StoppedError) return refuse('stopped', 'Stopped. Nothing was changed by it.');
    if (!(error instanceof TooMuchWorkError)) throw error;
    return refuse('tooMuchWork', 'This text is too long to be taken apart at once. Divide it into several pieces.');
  }
}
