// @vitest-environment jsdom
import { act, cleanup, screen } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Slip } from '@/core/calendar/slip';
import { testSlip } from '@/core/calendar/testSlip';
import { asOfLatestAnswer, call } from '@/ui/api';
import { ownKey } from '@/ui/personOnScreen';
import { fakeServer, renderOnScreen, router, type Call, type Reply } from '@/ui/testScreen';
import { useChanges } from './useChanges';
import { usePicks } from './usePicks';

const slip = (id: string, change: Partial<Slip> = {}): Slip => testSlip({ id, date: '2026-12-01', ...change });

let stored: Slip[];
/** Moves the posts that have the version given, as the server does; names the others. */
const serve = ({ path, body }: Call): Reply => {
  if (path.endsWith('/undo')) {
    stored = stored.map((one) => ({ ...one, date: '2026-12-01', version: one.version + 1 }));
    return reply(
      'Undone',
      stored.map(({ id }) => id),
      [],
    );
  }
  const posts = body.posts as { id: string; version: number }[];
  const { days } = body.change as { days: number };
  const done = posts.filter(({ id, version }) => stored.some((one) => one.id === id && one.version === version));
  const late = posts.filter((post) => !done.includes(post));
  stored = stored.map((one) =>
    done.some(({ id }) => id === one.id) ? { ...one, date: `2026-12-0${1 + days}`, version: one.version + 1 } : one,
  );
  return reply(
    'Moved',
    done.map(({ id }) => id),
    late.map(({ id }) => ({ postId: id, title: id, message: 'Too late.' })),
  );
};
const reply = (
  label: string,
  postIds: string[],
  refused: { postId: string; title: string; message: string }[],
): Reply => ({
  value: {
    outcome: { changeId: 'c', label, postIds, refused, notes: [] },
    slips: stored.filter(({ id }) => postIds.includes(id) || refused.some((one) => one.postId === id)),
    gone: [],
  },
});

let server: ReturnType<typeof fakeServer>;
beforeEach(() => {
  vi.useFakeTimers();
  localStorage.clear();
  router.refresh.mockClear();
  stored = [slip('a'), slip('b')];
  server = fakeServer(serve);
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const wait = (ms: number) => act(() => vi.advanceTimersByTimeAsync(ms));
const START = [slip('a'), slip('b')];
/** The calendar as it is read after everything answered so far. */
const view = (slips: Slip[], asOf = asOfLatestAnswer()) => ({ slips, asOf });
const open = () => renderOnScreen((shown: ReturnType<typeof view>) => useChanges('b', shown), view(START));
const dates = (slips: readonly Slip[]) => Object.fromEntries(slips.map(({ id, date }) => [id, date]));
const shift = (days: number) => ({ kind: 'shift', days }) as const;

describe('a change on the calendar', () => {
  it('shows at once, is saved, says so, and reads the horizons anew a little later', async () => {
    const { result } = open();
    act(() => result.current.change([START[0]!], shift(2)));
    expect(dates(result.current.slips)).toEqual({ a: '2026-12-03', b: '2026-12-01' });
    expect(result.current.isSaving).toBe(true);
    await wait(0);
    expect([result.current.isSaving, result.current.slips.find(({ id }) => id === 'a')?.version]).toEqual([false, 2]);
    expect(screen.getByText('Moved.')).toBeTruthy();
    expect(router.refresh).not.toHaveBeenCalled();
    await wait(900);
    expect(router.refresh).toHaveBeenCalledTimes(1);
  });

  it('waits for the one before it, and is based on what that left', async () => {
    const { result } = open();
    act(() => result.current.change([START[0]!], shift(1)));
    act(() => result.current.change([START[0]!], shift(2)));
    await wait(0);
    await wait(0);
    expect(server.calls.map(({ body }) => (body.posts as { version: number }[])[0]!.version)).toEqual([1, 2]);
  });

  it('is based on what several before it left, whichever of them showed when it was made', async () => {
    const { result } = open();
    act(() => result.current.change([START[0]!], shift(1)));
    act(() => result.current.change([START[0]!], shift(2)));
    act(() => result.current.change([START[0]!], shift(3)));
    await wait(0);
    // The first is answered by now, and shows with its new version.
    const shown = result.current.slips.find(({ id }) => id === 'a')!;
    act(() => result.current.change([shown], shift(4)));
    for (let turn = 0; turn < 4; turn++) await wait(0);
    expect(server.calls.map(({ body }) => (body.posts as { version: number }[])[0]!.version)).toEqual([1, 2, 3, 4]);
    expect([result.current.isSaving, stored[0]!.date]).toEqual([false, '2026-12-05']);
    expect(screen.queryByText(/Not changed/)).toBeNull();
  });

  it('that is refused for some posts names them and shows how they stand', async () => {
    const { result } = open();
    stored = [slip('a'), slip('b', { version: 7, date: '2026-12-09' })];
    act(() => result.current.change(START, shift(2)));
    await wait(0);
    expect(screen.getByText(/Not changed: 1\. “b”: Too late\./)).toBeTruthy();
    expect(dates(result.current.slips).a).toBe('2026-12-03');
  });

  it('that was refused for a post does not let the next one over what somebody else did', async () => {
    const { result } = open();
    stored = [slip('a'), slip('b', { version: 7, date: '2026-12-09' })];
    act(() => result.current.change(START, shift(2)));
    act(() => result.current.change(START, shift(3)));
    for (let turn = 0; turn < 3; turn++) await wait(0);
    expect(server.calls.map(({ body }) => (body.posts as { version: number }[]).map(({ version }) => version))).toEqual(
      [
        [1, 1],
        [2, 1],
      ],
    );
    expect(dates(result.current.slips)).toEqual({ a: '2026-12-04', b: '2026-12-09' });
  });

  it('of no post is none', () => {
    const { result } = open();
    act(() => result.current.change([], shift(2)));
    expect([result.current.isSaving, server.calls]).toEqual([false, []]);
  });

  it('is undone from its message', async () => {
    const { result } = open();
    act(() => result.current.change([START[0]!], shift(2)));
    await wait(0);
    act(() => screen.getByText('Undo').click());
    await wait(0);
    expect(server.calls.at(-1)).toMatchObject({ path: '/api/calendar/undo', body: { changeId: 'c' } });
    expect(dates(result.current.slips).a).toBe('2026-12-01');
  });
});

describe('while the server is gone', () => {
  it('a change stays marked, is kept in the browser, and is sent when it is back', async () => {
    const { result } = open();
    server.answer = () => 'gone';
    act(() => result.current.change([START[0]!], shift(2)));
    expect(result.current.unsaved.size).toBe(0);
    await wait(0);
    expect([...result.current.unsaved]).toEqual(['a']);
    expect(JSON.parse(localStorage.getItem(ownKey('changes.b'))!)).toHaveLength(1);
    server.answer = serve;
    await wait(4_000);
    expect([result.current.unsaved.size, localStorage.getItem(ownKey('changes.b'))]).toEqual([0, null]);
    expect(stored[0]!.date).toBe('2026-12-03');
  });

  it('a change survives a reload', async () => {
    server.answer = () => 'gone';
    const first = open();
    act(() => first.result.current.change([START[0]!], shift(2)));
    await wait(0);
    first.unmount();
    server.answer = serve;
    const { result } = open();
    await wait(0);
    expect([dates(result.current.slips).a, stored[0]!.date]).toEqual(['2026-12-03', '2026-12-03']);
  });

  it('it is tried at once when the browser is online again', async () => {
    const { result } = open();
    server.answer = () => 'gone';
    act(() => result.current.change([START[0]!], shift(2)));
    await wait(0);
    server.answer = serve;
    act(() => void window.dispatchEvent(new Event('online')));
    await wait(0);
    expect(result.current.unsaved.size).toBe(0);
  });
});

it('what the server draws anew keeps the changes that are under way', async () => {
  const hook = open();
  server.answer = () => 'gone';
  act(() => hook.result.current.change([START[0]!], shift(2)));
  await wait(0);
  hook.rerender(view([slip('a', { title: 'Renamed' }), slip('b'), slip('c')]));
  const { slips } = hook.result.current;
  expect(dates(slips)).toEqual({ a: '2026-12-03', b: '2026-12-01', c: '2026-12-01' });
  expect(slips.find(({ id }) => id === 'a')?.title).toBe('Renamed');
});

describe('a view read by the server', () => {
  it('before a change was saved, but come after it, does not take the change back', async () => {
    const { result, rerender } = open();
    const before = asOfLatestAnswer();
    act(() => result.current.change([START[0]!], shift(2)));
    await wait(0);
    rerender(view([slip('a'), slip('b', { title: 'Renamed' })], before));
    expect(dates(result.current.slips)).toEqual({ a: '2026-12-03', b: '2026-12-01' });
    expect(result.current.slips.find(({ id }) => id === 'b')?.title).toBe('Renamed');
  });

  it('after it is believed, whatever it says', async () => {
    const { result, rerender } = open();
    act(() => result.current.change([START[0]!], shift(2)));
    await wait(0);
    rerender(view([slip('a', { date: '2026-12-24', version: 9 })]));
    expect(dates(result.current.slips)).toEqual({ a: '2026-12-24' });
  });

  it('before a post was made or deleted neither hides it nor brings it back', async () => {
    const { result, rerender } = open();
    const before = asOfLatestAnswer();
    server.answer = () => ({ value: {} });
    await call('POST', '/api/made-and-deleted');
    act(() => result.current.put(slip('c', { title: 'New' })));
    act(() => result.current.remove('b'));
    expect(result.current.slips.map(({ id }) => id)).toEqual(['a', 'c']);
    rerender(view([slip('a'), slip('b')], before));
    expect(result.current.slips.map(({ id }) => id)).toEqual(['a', 'c']);
    rerender(view([slip('a'), slip('c')]));
    expect(result.current.slips.map(({ title }) => title)).not.toContain('New');
  });
});

describe('picking', () => {
  const keys = (held: Partial<{ ctrlKey: boolean; metaKey: boolean; shiftKey: boolean }> = {}) => ({
    ctrlKey: false,
    metaKey: false,
    shiftKey: false,
    ...held,
  });
  beforeEach(() => {
    document.body.innerHTML = `<div class="arrangement">${['a', 'b', 'c', 'd'].map((id) => `<i data-post="${id}"></i>`).join('')}</div>`;
  });

  it('takes one by one with a key held, and lets go again', () => {
    const { result } = renderOnScreen(() => usePicks());
    let picked = true;
    act(() => void (picked = result.current.pick('a', keys())));
    expect([picked, result.current.picked.size]).toEqual([false, 0]);
    act(() => void result.current.pick('a', keys({ ctrlKey: true })));
    act(() => void result.current.pick('c', keys({ metaKey: true })));
    expect([...result.current.picked]).toEqual(['a', 'c']);
    act(() => void result.current.pick('a', keys({ ctrlKey: true })));
    expect([...result.current.picked]).toEqual(['c']);
  });

  it.each([
    ['forward', 'b', 'd', ['b', 'c', 'd']],
    ['back', 'c', 'a', ['a', 'b', 'c']],
  ])('takes a range %s', (_way, from, to, expected) => {
    const { result } = renderOnScreen(() => usePicks());
    act(() => void result.current.pick(from, keys({ ctrlKey: true })));
    act(() => void result.current.pick(to, keys({ shiftKey: true })));
    expect([...result.current.picked].sort()).toEqual(expected);
  });

  it('takes all that a box holds, and clears', () => {
    const { result } = renderOnScreen(() => usePicks());
    act(() => result.current.add(['a', 'b']));
    act(() => result.current.add(['b', 'd']));
    expect([...result.current.picked]).toEqual(['a', 'b', 'd']);
    act(() => result.current.clear());
    expect(result.current.picked.size).toBe(0);
  });
});
