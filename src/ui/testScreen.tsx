import { render, renderHook, type RenderHookResult, type RenderResult } from '@testing-library/react';
import { AppRouterContext } from 'next/dist/shared/lib/app-router-context.shared-runtime';
import { PathnameContext } from 'next/dist/shared/lib/hooks-client-context.shared-runtime';
import type { ReactNode } from 'react';
import { vi } from 'vitest';
import { SHIPPED_RULE_SHEETS } from '@/core/rulesheets/shipped';
import type { Refusal } from '@/core/refusal';
import { AS_OF_HEADER, asOfLatestAnswer, SEEN_HEADER } from './api';
import { MessagesProvider } from './messages';
import { PROGRESS_TYPE } from './progress';
import { ShellProvider, type Shell } from './shell';
import { UndoProvider } from './undo';

/** A brand as screens know it, in tests. */
export const SHELL: Shell = {
  brand: {
    id: 'b',
    slug: 'moor',
    name: 'Moor',
    zone: 'Europe/Lisbon',
    weekStart: 1,
    wordsPerMinute: 150,
    asksSignOff: false,
    makersSend: null,
    makersExchange: false,
  },
  brands: [{ slug: 'moor', name: 'Moor' }],
  people: [
    { id: 'mana', slug: 'mana', name: 'Mana', role: 'manager' },
    { id: 'dea', slug: 'dea', name: 'Dea', role: 'maker' },
  ],
  entry: 'chosen',
  me: { id: 'mana', slug: 'mana', name: 'Mana', role: 'manager' },
  channels: [
    {
      id: 'pl',
      brandId: 'b',
      name: 'Pithline',
      callSign: 'PL',
      color: '#B4531F',
      sheet: SHIPPED_RULE_SHEETS.find(({ slug }) => slug === 'pithline')!,
    },
  ],
  pillars: [],
  campaigns: [],
  now: '2026-11-23T09:00:00.000Z',
  today: '2026-11-23',
};

/** What the page's router was asked for. */
export const router = {
  refresh: vi.fn(),
  push: vi.fn(),
  replace: vi.fn(),
  prefetch: vi.fn(),
  back: vi.fn(),
  forward: vi.fn(),
};

const around =
  (shell: Partial<Shell>) =>
  ({ children }: { children: ReactNode }) => (
    <AppRouterContext value={router as never}>
      <PathnameContext value="/moor/calendar">
        <ShellProvider shell={{ ...SHELL, ...shell }}>
          <MessagesProvider>
            <UndoProvider>{children}</UndoProvider>
          </MessagesProvider>
        </ShellProvider>
      </PathnameContext>
    </AppRouterContext>
  );

/** Draws a part of a screen as it stands in the shell of a brand. */
export const renderScreen = (part: ReactNode, shell: Partial<Shell> = {}): RenderResult =>
  render(part, { wrapper: around(shell) });

/** Runs a hook as it runs on a screen. */
export const renderOnScreen = <Result, Props>(
  hook: (props: Props) => Result,
  initialProps?: Props,
): RenderHookResult<Result, Props> => renderHook(hook, { initialProps, wrapper: around({}) });

/** A call that a screen made. */
export interface Call {
  method: string;
  path: string;
  body: Record<string, unknown>;
  /** The version it says it is based on, as an entity tag. */
  seen: string | null;
}

/** What the server answers: a value, a refusal with what stands now, or nothing at all. */
export type Reply = { value: unknown } | { refusal: Refusal; current?: unknown } | 'gone';

type FakeAnswer = (call: Call) => Reply | Promise<Reply>;

/** Stands in for the server: keeps the calls, answers each as it is told and as if something was written. Undone by `vi.unstubAllGlobals()`. */
export function fakeServer(answer: FakeAnswer): { calls: Call[]; answer: FakeAnswer } {
  const server = { calls: [] as Call[], answer };
  vi.stubGlobal('fetch', async (path: string, init: RequestInit = {}) => {
    const body = typeof init.body === 'string' ? (JSON.parse(init.body) as Record<string, unknown>) : {};
    const seen = new Headers(init.headers).get(SEEN_HEADER);
    const call = { method: init.method ?? 'GET', path, body, seen };
    server.calls.push(call);
    const reply = await server.answer(call);
    if (reply === 'gone') throw new TypeError('fetch failed');
    const headers = { [AS_OF_HEADER]: String(asOfLatestAnswer() + 1) };
    if (new Headers(init.headers).get('accept') === PROGRESS_TYPE)
      return new Response(`${JSON.stringify(reply)}\n`, { headers: { ...headers, 'content-type': PROGRESS_TYPE } });
    return 'value' in reply ? Response.json(reply.value, { headers }) : Response.json(reply, { status: 422, headers });
  });
  return server;
}
