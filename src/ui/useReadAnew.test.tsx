// @vitest-environment jsdom
import { act, cleanup, renderHook } from '@testing-library/react';
import { AppRouterContext, type AppRouterInstance } from 'next/dist/shared/lib/app-router-context.shared-runtime';
import { startTransition, type ReactNode } from 'react';
import { afterEach, expect, it } from 'vitest';
import { useReadAnew } from './useReadAnew';

afterEach(cleanup);

it('reads anew each time it is asked to, but not while a reading is under way', async () => {
  let refreshes = 0;
  let arrive = () => undefined as void;
  // As Next's router does, it makes the reading a part of the transition in which it is asked for.
  const refresh = () => {
    refreshes++;
    startTransition(() => new Promise<void>((resolve) => void (arrive = resolve)));
  };
  const router = { refresh } as AppRouterInstance;
  const wrapper = ({ children }: { children: ReactNode }) => (
    <AppRouterContext value={router}>{children}</AppRouterContext>
  );
  const { result } = renderHook(useReadAnew, { wrapper });
  await act(async () => {
    result.current();
    result.current();
  });
  expect(refreshes).toBe(1);
  await act(async () => arrive());
  await act(async () => result.current());
  expect(refreshes).toBe(2);
});
