import { afterEach, describe, expect, it, vi } from 'vitest';
import { call, PERSON_HEADER, problemOf, sendForm, UNREACHABLE } from './api';
import { drawnFor } from './personOnScreen';

afterEach(() => vi.unstubAllGlobals());
const server = (answer: () => Promise<Response>) => vi.stubGlobal('fetch', vi.fn(answer));

describe('calling the server', () => {
  it('gives what was done', async () => {
    server(async () => Response.json({ id: 1 }));
    const answer = await call('POST', '/x', { a: 1 });
    expect(answer).toEqual({ kind: 'done', value: { id: 1 } });
    expect(problemOf(answer)).toBeNull();
    expect(fetch).toHaveBeenCalledWith('/x', expect.objectContaining({ method: 'POST', body: '{"a":1}' }));
  });

  it('says for whom the page was drawn that calls, of a form too', async () => {
    server(async () => Response.json({}));
    drawnFor('ada');
    await call('POST', '/x', {});
    await sendForm('/x', { name: 'a' });
    await call('GET', '/x');
    drawnFor('');
    const told = vi
      .mocked(fetch)
      .mock.calls.map(([, init]) => (init!.headers as Record<string, string>)[PERSON_HEADER]);
    expect(told).toEqual(['ada', 'ada', 'ada']);
  });

  it('gives a refusal with what stands there now', async () => {
    server(async () =>
      Response.json(
        { refusal: { code: 'stale', message: 'Changed meanwhile.' }, current: { version: 4 } },
        { status: 409 },
      ),
    );
    const answer = await call('PATCH', '/x', {});
    expect(answer).toEqual({
      kind: 'refused',
      refusal: { code: 'stale', message: 'Changed meanwhile.' },
      current: { version: 4 },
    });
    expect(problemOf(answer)).toBe('Changed meanwhile.');
  });

  it.each([
    ['the server is gone', () => Promise.reject(new TypeError('fetch failed'))],
    ['what stands before it says that it is away', async () => new Response('<html>', { status: 502 })],
  ])('is unreachable when %s', async (_name, answer) => {
    server(answer as () => Promise<Response>);
    expect(problemOf(await call('GET', '/x'))).toBe(UNREACHABLE);
  });

  it.each([
    ['it answers no JSON', async () => new Response('<html>', { status: 500 })],
    ['it breaks', async () => Response.json({}, { status: 500 })],
  ])('is told as Bimlo’s own error when %s', async (_name, answer) => {
    server(answer as () => Promise<Response>);
    expect(await call('POST', '/x', {})).toMatchObject({ kind: 'refused', refusal: { code: 'broken' } });
  });

  const keys = () =>
    vi.mocked(fetch).mock.calls.map(([, init]) => (init!.headers as Record<string, string>)['idempotency-key']);

  it('sends a write that is pressed twice once, and its next one under another key', async () => {
    server(async () => Response.json({}));
    await Promise.all([call('POST', '/x', { a: 1 }), call('POST', '/x', { a: 1 }), call('POST', '/x', { a: 2 })]);
    expect(fetch).toHaveBeenCalledTimes(2);
    await call('POST', '/x', { a: 1 });
    expect(new Set(keys()).size).toBe(3);
  });

  it('sends a write that got no answer again under its own key', async () => {
    server(() => Promise.reject(new TypeError('fetch failed')));
    await call('POST', '/x', { a: 3 });
    const before = keys()[0];
    server(async () => Response.json({}));
    await call('POST', '/x', { a: 3 });
    expect(keys()).toEqual([before]);
  });

  it('reads without a key', async () => {
    server(async () => Response.json({}));
    await call('GET', '/x');
    expect(keys()).toEqual([undefined]);
  });

  it('sends a file as it is, with its name', async () => {
    server(async () => Response.json({}));
    const file = new File(['bytes'], 'dôme.png');
    await call('POST', '/x', file);
    expect(fetch).toHaveBeenCalledWith(
      '/x',
      expect.objectContaining({ body: file, headers: expect.objectContaining({ 'x-file-name': 'd%C3%B4me.png' }) }),
    );
  });
});
