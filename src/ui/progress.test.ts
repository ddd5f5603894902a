import { afterEach, describe, expect, it, vi } from 'vitest';
import { callAsItGoes, PROGRESS_TYPE } from './progress';

afterEach(() => vi.unstubAllGlobals());

/** A server whose lines are said one by one, cut anywhere. */
function speaking(...chunks: string[]) {
  const encoder = new TextEncoder();
  const body = new ReadableStream({
    start(stream) {
      for (const chunk of chunks) stream.enqueue(encoder.encode(chunk));
      stream.close();
    },
  });
  vi.stubGlobal('fetch', async () => new Response(body, { headers: { 'content-type': PROGRESS_TYPE } }));
}
const listen = async () => {
  const shares: number[] = [];
  const answer = await callAsItGoes('/x', {
    onShare: (share) => shares.push(share),
    signal: new AbortController().signal,
  });
  return { shares, answer };
};

describe('an answer that says how far it is', () => {
  it('is told share by share, wherever its lines are cut, and ends with what came of it', async () => {
    speaking('{"share":0.1}\n{"sha', 're":0.5}\n', '{"value":{"text":"so weit — ', 'ok"}}\n');
    expect(await listen()).toEqual({ shares: [0.1, 0.5], answer: { kind: 'done', value: { text: 'so weit — ok' } } });
  });

  it('may be a refusal, before it began or after', async () => {
    const refusal = { code: 'tooMuchWork', message: 'Too long.' };
    speaking('{"share":0.1}\n', JSON.stringify({ refusal }));
    expect((await listen()).answer).toEqual({ kind: 'refused', refusal });
    vi.stubGlobal('fetch', async () => Response.json({ refusal }, { status: 404 }));
    expect((await listen()).answer).toEqual({ kind: 'refused', refusal });
  });

  it('that breaks off, is no such answer, or does not come is none', async () => {
    speaking('{"share":0.1}\n{"val');
    expect((await listen()).answer).toEqual({ kind: 'unreachable' });
    vi.stubGlobal('fetch', async () => new Response('<html>'));
    expect((await listen()).answer).toEqual({ kind: 'unreachable' });
    vi.stubGlobal('fetch', () => Promise.reject(new TypeError('fetch failed')));
    expect((await listen()).answer).toEqual({ kind: 'unreachable' });
  });
});
