// @vitest-environment jsdom
import { act, cleanup, fireEvent, screen } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { fakeServer, renderScreen, router } from '@/ui/testScreen';
import type { RunningImport } from '@/usecases/exchange/longImport';
import { BringIn } from './BringIn';

const RUNNING: RunningImport = {
  id: 'i1',
  brandId: 'b1',
  actorId: 'p1',
  fileName: 'plan.csv',
  rowCount: 2_000,
  state: 'checking',
  doneCount: 0,
  doneLine: 0,
  stopAsked: false,
  outcome: { made: 0, changed: 0, same: 0, bad: [], notes: [] },
  refusal: null,
  createdAt: '2026-11-23T09:00:00.000Z',
  endedAt: null,
};

let stands: RunningImport;
let server: ReturnType<typeof fakeServer>;
beforeEach(() => {
  vi.useFakeTimers();
  router.refresh.mockClear();
  stands = RUNNING;
  server = fakeServer(({ method }) => {
    if (method === 'DELETE') stands = { ...stands, stopAsked: true };
    return { value: stands };
  });
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const later = () => act(() => vi.advanceTimersByTimeAsync(600));

describe('an import that runs', () => {
  it('is found on the page, counts its rows, and ends with what came of it', async () => {
    renderScreen(<BringIn running={RUNNING} />);
    expect(screen.getByText(/Checking “plan.csv”: 0 of 2,000 rows/)).toBeTruthy();
    stands = { ...RUNNING, state: 'writing', doneCount: 800 };
    await later();
    expect(screen.getByRole('progressbar').getAttribute('aria-valuenow')).toBe('800');
    expect(screen.getByText(/Importing “plan.csv”: 800 of 2,000 rows/)).toBeTruthy();
    stands = {
      ...stands,
      state: 'done',
      outcome: { ...RUNNING.outcome, made: 1_990, bad: [{ line: 7, reason: 'x' }] },
    };
    await later();
    expect(screen.getByRole('status').textContent).toContain('Made 1990');
    expect(screen.queryByRole('progressbar')).toBeNull();
    expect(router.refresh).toHaveBeenCalledOnce();
    const asked = server.calls.length;
    await later();
    expect(server.calls.length).toBe(asked);
  });

  it('can be stopped, and says while it is', async () => {
    renderScreen(<BringIn running={RUNNING} />);
    await act(async () => void fireEvent.click(screen.getByRole('button', { name: 'Stop' })));
    expect((screen.getByRole('button', { name: 'Stopping…' }) as HTMLButtonElement).disabled).toBe(true);
    expect(server.calls.map(({ method }) => method)).toContain('DELETE');
  });

  it('that was refused says why, and shows no counts of nothing', async () => {
    renderScreen(<BringIn running={RUNNING} />);
    stands = { ...RUNNING, state: 'refused', refusal: { code: 'badRows', message: '1 row is wrong.' } };
    await later();
    expect(screen.getByRole('alert').textContent).toBe('1 row is wrong.');
    expect(screen.queryByRole('status')).toBeNull();
  });
});
