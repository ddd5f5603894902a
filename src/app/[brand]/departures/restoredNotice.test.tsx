// @vitest-environment jsdom
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { testSlip } from '@/core/calendar/testSlip';
import type { OpenRestore, Waiting } from '@/usecases/delivery/restores';
import { fakeServer, renderScreen, router, SHELL } from '@/ui/testScreen';
import { RestoredNotice } from './RestoredNotice';

let server: ReturnType<typeof fakeServer>;
beforeEach(() => {
  router.refresh.mockClear();
  server = fakeServer(() => ({ value: { released: 1 } }));
});
afterEach(cleanup);

const waiting = (id: string, title: string, change: Partial<Waiting> = {}): Waiting => ({
  ...{ slip: testSlip({ id, title }), dueAt: '2026-11-26T14:30:00.000Z', isUnsure: false, isByHand: false },
  ...change,
});
const open = (change: Partial<OpenRestore> = {}, role: 'manager' | 'maker' = 'manager') =>
  renderScreen(
    <RestoredNotice
      restore={{
        ...{ id: 'r', foundAt: '2026-11-27T09:00:00.000Z', restoredTo: '2026-11-23T09:00:00.000Z', takenOver: 0 },
        ...{ signs: ['said'], waiting: [waiting('a', 'Rings'), waiting('b', 'Moons')], silentChannels: [] },
        ...change,
      }}
    />,
    { me: { ...SHELL.me, role } },
  );
const row = (title: string) => within(screen.getByRole('link', { name: title }).closest('tr')!);

describe('a restored folder', () => {
  it('says to when, by what that was seen, and what is known of each post', () => {
    open({
      signs: ['copied', 'networks'],
      takenOver: 1,
      silentChannels: ['Glassrow'],
      waiting: [
        waiting('a', 'Rings', { isUnsure: true }),
        waiting('b', 'Moons', { isByHand: true }),
        waiting('c', 'Sun'),
      ],
    });
    expect(screen.getByRole('heading').textContent).toMatch(/^Restored to 23 Nov .*: 3 posts wait$/);
    expect(screen.getByText(/the data folder was copied to its place and a network holds posts/)).toBeTruthy();
    expect(screen.getByText('1 post was published since then, and is shown as its network has it.')).toBeTruthy();
    expect(screen.getByText(/Not answered yet: Glassrow\./)).toBeTruthy();
    expect(row('Rings').getByText(/not known yet whether it is published/)).toBeTruthy();
    expect(row('Moons').getByText(/check whether somebody has posted it/)).toBeTruthy();
    expect(row('Sun').getByText('not published yet')).toBeTruthy();
  });

  it('releases one post, or all', async () => {
    open();
    fireEvent.click(row('Moons').getByRole('button', { name: 'Release: Moons' }));
    await waitFor(() => expect(router.refresh).toHaveBeenCalledTimes(1));
    fireEvent.click(screen.getByRole('button', { name: 'Release all 2' }));
    await waitFor(() => expect(server.calls).toHaveLength(2));
    expect(server.calls.map(({ path, body }) => [path, (body as { postId: string | null }).postId])).toEqual([
      ['/api/restores/release', 'b'],
      ['/api/restores/release', null],
    ]);
  });

  it('with nothing that waits is left by one button', () => {
    open({ waiting: [], restoredTo: null });
    expect(screen.getByRole('heading').textContent).toBe('Restored: nothing waits');
    expect(screen.getByRole('button', { name: 'Continue' })).toBeTruthy();
  });

  it('is for a manager to release', () => {
    open({}, 'maker');
    expect(screen.queryByRole('button')).toBeNull();
    expect(screen.getByText('Only a manager releases them.')).toBeTruthy();
  });
});
