import type { Refusal } from '@/core/refusal';
import { UNREACHABLE_ANSWER, type Answer } from './api';

/** Lines of JSON, one a line (NDJSON): how far long work is, and at last what came of it. */
export const PROGRESS_TYPE = 'application/x-ndjson';

/** One of those lines. */
export type ProgressLine<T> = { share: number } | { value: T } | { refusal: Refusal };

/**
 * Asks a route handler of ours for something that takes a while. Never throws.
 *
 * @param onShare is told what share is done, 0 to 1
 * @param signal ends the work; what is answered then is not worth saying
 */
export async function callAsItGoes<T>(
  path: string,
  { onShare, signal }: { onShare: (share: number) => void; signal: AbortSignal },
): Promise<Answer<T>> {
  try {
    const response = await fetch(path, { headers: { accept: PROGRESS_TYPE }, signal });
    if (response.headers.get('content-type') !== PROGRESS_TYPE) {
      const { refusal } = (await response.json()) as { refusal?: Refusal };
      return refusal ? { kind: 'refused', refusal } : UNREACHABLE_ANSWER;
    }
    for await (const line of linesOf(response.body!)) {
      const said = JSON.parse(line) as ProgressLine<T>;
      if ('value' in said) return { kind: 'done', value: said.value };
      if ('refusal' in said) return { kind: 'refused', refusal: said.refusal };
      onShare(said.share);
    }
  } catch {
    // Broken off by us, gone with the server, or not ours: there is no answer either way.
  }
  return UNREACHABLE_ANSWER;
}

/** The lines of a stream of UTF-8. */
async function* linesOf(body: ReadableStream<Uint8Array>): AsyncGenerator<string> {
  const reader = body.pipeThrough(new TextDecoderStream() as ReadableWritablePair<string, Uint8Array>).getReader();
  let rest = '';
  for (let read = await reader.read(); !read.done; read = await reader.read()) {
    const lines = (rest + read.value).split('\n');
    rest = lines.pop()!;
    yield* lines;
  }
  if (rest !== '') yield rest;
}
