// @vitest-environment jsdom
import { act, cleanup } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { renderOnScreen, router } from '@/ui/testScreen';
import { useNeighbours } from './useNeighbours';

beforeEach(() => {
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout', 'performance'] });
  router.prefetch.mockClear();
  router.refresh.mockClear();
  history.replaceState(null, '', '/moor/calendar?as=month');
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

const MONTHS = ['2026-10-01', '2026-11-01', '2026-12-01', '2027-01-01'];
const at = (index: number) => ({
  date: MONTHS[index]!,
  neighbours: [MONTHS[index + 1]!, MONTHS[index - 1]!],
  shown: {},
});
const draw = () =>
  renderOnScreen(({ date, neighbours, shown }: ReturnType<typeof at>) => useNeighbours(date, neighbours, shown), at(1));
const pass = (ms: number) => act(() => vi.advanceTimersByTimeAsync(ms));
const fetched = () => router.prefetch.mock.calls.map(([address]) => address as string);

it('fetches the periods beside what has settled on screen, keeping the rest of the address', async () => {
  draw();
  expect(fetched()).toEqual([]);
  await pass(500);
  expect(fetched()).toEqual(['/moor/calendar?as=month&date=2026-12-01', '/moor/calendar?as=month&date=2026-10-01']);
});

it('fetches nothing for what is only leafed over', async () => {
  const { rerender } = draw();
  await pass(200);
  rerender(at(2));
  await pass(500);
  expect(fetched()).toEqual(['/moor/calendar?as=month&date=2027-01-01', '/moor/calendar?as=month&date=2026-11-01']);
});

it('reads what was fetched a while ago anew when it is shown, and not what is fresh', async () => {
  const { rerender } = draw();
  await pass(500);
  rerender(at(2));
  expect(router.refresh).not.toHaveBeenCalled();
  await pass(7_000);
  rerender(at(1));
  expect(router.refresh).toHaveBeenCalledOnce();
});
