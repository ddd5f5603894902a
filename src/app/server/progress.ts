import { log } from '@/runtime/log';
import type { Refusal, Result } from '@/core/refusal';
import { PROGRESS_TYPE, type ProgressLine } from '@/ui/progress';
import { BROKEN } from './door';
import { answer } from './request';

/** Work that says how far it is, and ends when it is called off. */
type Watched<T> = (watch: { signal: AbortSignal; onShare?: (share: number) => void }) => Promise<Result<T>>;

/**
 * Answers with what comes of long work. Whoever asks for lines of progress gets them, a JSON text each, and the outcome as the
 * last; anybody else gets the outcome. The work ends when the request is broken off.
 */
export async function answerAsItGoes<T>(request: Request, work: Watched<T>): Promise<Response> {
  if (request.headers.get('accept') !== PROGRESS_TYPE) return answer(await work({ signal: request.signal }));
  // The stream may be given up before, or without, the request being told so.
  const ending = new AbortController();
  const signal = AbortSignal.any([request.signal, ending.signal]);
  const encoder = new TextEncoder();
  const body = new ReadableStream<Uint8Array>({
    async start(lines) {
      const write = (line: ProgressLine<T>) => {
        if (!signal.aborted) lines.enqueue(encoder.encode(`${JSON.stringify(line)}\n`));
      };
      write(await outcomeOf(work, { signal, onShare: (share) => write({ share }) }));
      if (!signal.aborted) lines.close();
    },
    cancel: () => ending.abort(),
  });
  return new Response(body, { headers: { 'content-type': PROGRESS_TYPE, 'cache-control': 'no-store' } });
}

async function outcomeOf<T>(
  work: Watched<T>,
  watch: Parameters<Watched<T>>[0],
): Promise<{ value: T } | { refusal: Refusal }> {
  try {
    const result = await work(watch);
    return result.ok ? { value: result.value } : { refusal: result.refusal };
  } catch (error) {
    log.error({ err: error }, 'work that says how far it is broke');
    return { refusal: BROKEN };
  }
}
