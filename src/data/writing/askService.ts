import pTimeout from 'p-timeout';
import { ANSWER_LIMIT, readAnswer, type WritingRequest } from '@/core/writing/form';
import { refuse, type Result } from '@/core/refusal';
import type { WritingService } from './writingServices';

/** How long a writing service may take for one answer, in milliseconds. */
const ANSWER_MS = 60_000;

/**
 * Asks a writing service for the texts of one draft: one POST to its exact address, which is not left for another.
 *
 * @returns its texts as they came, or why there are none, as the end of a sentence: “it gave no answer in 60 seconds”
 */
export async function askService(
  { address, key }: WritingService,
  request: WritingRequest,
  limitMs: number = ANSWER_MS,
): Promise<Result<string[]>> {
  const signal = AbortSignal.timeout(limitMs);
  const ask = async (): Promise<Result<string[]>> => {
    const answer = await fetch(address, {
      method: 'POST',
      headers: { 'content-type': 'application/json', ...(key !== '' && { authorization: `Bearer ${key}` }) },
      body: JSON.stringify(request),
      redirect: 'error',
      signal,
    });
    if (!answer.ok) {
      await answer.body?.cancel();
      return refuse('refused', `it refused, with status ${answer.status}`);
    }
    const body = await textOf(answer, signal);
    return body === null ? refuse('badAnswer', 'its answer was too long') : readAnswer(body, request.wanted.length);
  };
  try {
    // The signal alone does not always end the reading of an answer: undici holds what it aborts weakly.
    return await pTimeout(ask(), { milliseconds: limitMs });
  } catch (error) {
    if (error instanceof Error && error.name === 'TimeoutError')
      return refuse('noAnswer', `it gave no answer in ${Math.round(limitMs / 1_000)} seconds`);
    // What keeps a request from its host comes as a TypeError, whose cause is the system's.
    if (error instanceof TypeError) return refuse('noAnswer', 'it could not be reached');
    throw error;
  }
}

/** The text of an answer, which is left where nobody waits for it any more; null where it is longer than answers are. */
async function textOf(answer: Response, signal: AbortSignal): Promise<string | null> {
  const chunks: Uint8Array[] = [];
  let bytes = 0;
  for await (const chunk of answer.body ?? []) {
    bytes += (chunk as Uint8Array).length;
    signal.throwIfAborted();
    if (bytes > ANSWER_LIMIT) return null;
    chunks.push(chunk as Uint8Array);
  }
  return Buffer.concat(chunks).toString('utf8');
}
