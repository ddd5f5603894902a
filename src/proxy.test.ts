import { NextRequest } from 'next/server';
import { describe, expect, it } from 'vitest';
import { proxy } from './proxy';

const ask = (method: string, headers: Record<string, string>) =>
  proxy(
    new NextRequest('http://127.0.0.1:4310/fennel-moor/desk', {
      method,
      headers: { host: '127.0.0.1:4310', ...headers },
    }),
  ).status;

describe('who may read and write', () => {
  it.each([
    ['a page of ours reads', 'GET', {}, 200],
    ['by another name of this machine', 'GET', { host: 'localhost:4310' }, 200],
    ['by the name of another', 'GET', { host: 'elsewhere.example' }, 403],
    ['by a name that begins like ours', 'GET', { host: '127.0.0.1.elsewhere.example' }, 403],
    ['a page of ours writes', 'POST', { origin: 'http://127.0.0.1:4310' }, 200],
    ['a program without a page writes', 'POST', {}, 200],
    ['a foreign page writes', 'POST', { origin: 'https://elsewhere.example' }, 403],
    ['a page of another port writes', 'PATCH', { origin: 'http://127.0.0.1:9999' }, 403],
    ['a page without an origin writes', 'DELETE', { origin: 'null' }, 403],
    ['a foreign page that hides its origin writes', 'POST', { 'sec-fetch-site': 'cross-site' }, 403],
    ['a foreign page reads', 'GET', { origin: 'https://elsewhere.example' }, 200],
  ])('%s', (_name, method, headers, status) => expect(ask(method, headers as Record<string, string>)).toBe(status));
});

describe('what a page may load', () => {
  const policy = () =>
    proxy(
      new NextRequest('http://127.0.0.1:4310/fennel-moor/desk', { headers: { host: '127.0.0.1:4310' } }),
    ).headers.get('content-security-policy')!;

  it('scripts only with the number of this one answer', () => {
    const scripts = (text: string) => /script-src ([^;]*)/.exec(text)![1]!;
    expect(scripts(policy())).toMatch(/'nonce-[A-Za-z0-9+/=]{16,}'/);
    expect(scripts(policy())).not.toContain('unsafe-inline');
    expect(scripts(policy())).not.toContain('unsafe-eval');
    expect(policy()).not.toBe(policy());
  });
  it('no form that the browser sends by itself, with what was typed in its address', () =>
    expect(policy()).toContain("form-action 'none'"));
  it('nothing in a frame of another page', () => expect(policy()).toContain("frame-ancestors 'none'"));
});
