import { afterEach, describe, expect, it, vi } from 'vitest';
import { call, problemOf, UNREACHABLE } from './api';

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
    ['it answers no JSON', async () => new Response('<html>')],
    ['it breaks', async () => Response.json({}, { status: 500 })],
  ])('is unreachable when %s', async (_name, answer) => {
    server(answer as () => Promise<Response>);
    expect(problemOf(await call('GET', '/x'))).toBe(UNREACHABLE);
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
