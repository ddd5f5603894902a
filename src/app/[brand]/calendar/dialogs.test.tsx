// @vitest-environment jsdom
import { act, cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { testSlip } from '@/core/calendar/testSlip';
import type { Opening } from '@/core/rhythm/openings';
import type { TrayIdea } from '@/usecases/calendar/loadCalendar';
import { fakeServer, renderOnScreen, renderScreen, type Reply } from '@/ui/testScreen';
import { MoveDialog } from './MoveDialog';
import { NewPostDialog } from './NewPostDialog';
import { PickBar } from './PickBar';
import { usePlanning } from './usePlanning';

let server: ReturnType<typeof fakeServer>;
beforeEach(() => void (server = fakeServer(() => ({ value: {} }))));
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const press = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }));
const fill = (label: string | RegExp, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });
const REFUSED: Reply = { refusal: { code: 'past', message: 'That day has passed.' } };

describe('moving a post in a dialog', () => {
  const channels = [
    { id: 'c', name: 'Glassrow' },
    { id: 'pl', name: 'Pithline' },
  ];
  const open = () => {
    const [onMove, onClose] = [vi.fn(), vi.fn()];
    renderScreen(<MoveDialog slip={testSlip()} channels={channels} onMove={onMove} onClose={onClose} />);
    return { onMove, onClose };
  };

  it('takes a time in few letters, and another channel, and says where to on its button', () => {
    const { onMove, onClose } = open();
    fill('Date', '2026-11-27');
    fill('Time', '9');
    fill('Channel', 'pl');
    press('Move to Fri 27 Nov 09:00 on Pithline');
    expect(onMove).toHaveBeenCalledWith({ kind: 'place', date: '2026-11-27', time: '09:00', channelId: 'pl' });
    expect(onClose).toHaveBeenCalled();
  });

  it('to the tray takes the time off as well', () => {
    const { onMove } = open();
    fill('Date', '');
    press('Move to the tray');
    expect(onMove).toHaveBeenCalledWith({ kind: 'place', date: null, time: null });
  });

  it('without a time leaves the day without one', () => {
    const { onMove } = open();
    fill('Time', ' ');
    press('Move to Thu 26 Nov');
    expect(onMove).toHaveBeenCalledWith({ kind: 'place', date: '2026-11-26', time: null });
  });

  it('waits for a time that can be read', () => {
    open();
    fill('Time', 'tea time');
    expect(screen.getByRole('alert').textContent).toContain('“tea time” is not a time.');
    expect(screen.getByRole('button', { name: /^Move to/ })).toHaveProperty('disabled', true);
  });
});

describe('a new post', () => {
  const opening = { key: 'k', format: 'thread', pillarId: 'sky', theme: 'Friday question' } as unknown as Opening;
  const open = (given: Partial<Parameters<typeof NewPostDialog>[0]> = {}) => {
    const [onMade, onClose] = [vi.fn(), vi.fn()];
    renderScreen(<NewPostDialog date="2026-11-27" onMade={onMade} onClose={onClose} {...given} />);
    return { onMade, onClose };
  };
  const serve =
    (planned: Reply): typeof server.answer =>
    ({ path }) =>
      path === '/api/pieces' ? { value: { id: 'piece' } } : planned;

  it('on an opening is offered the ideas for its channel, and plans the one chosen', async () => {
    server.answer = serve({ value: { slips: [testSlip()] } });
    const { onClose } = open({ channelId: 'pl', time: '18:00', opening, ideas: [{ id: 'moon', title: 'Moon dogs' }] });
    press('Moon dogs');
    expect(screen.queryByLabelText('Working title')).toBeNull();
    press('Plan for Fri 27 Nov 18:00');
    await waitFor(() => expect(onClose).toHaveBeenCalled());
    expect(server.calls.map(({ path }) => path)).toEqual(['/api/pieces/moon/plan']);
  });

  it('on an opening takes its format and pillar, and says what the rhythm asks for', async () => {
    const made = [testSlip()];
    server.answer = serve({ value: { slips: made } });
    const { onMade, onClose } = open({ channelId: 'pl', time: '18:00', opening });
    expect(screen.getByRole('heading', { name: 'New post on Pithline' })).toBeTruthy();
    expect(screen.getByText(/The rhythm asks for: .*Friday question/)).toBeTruthy();
    fill('Working title', 'Why is it dark?');
    press('Plan for Fri 27 Nov 18:00');
    await waitFor(() => expect(onClose).toHaveBeenCalled());
    expect(server.calls.map(({ path, body }) => [path, body])).toEqual([
      ['/api/pieces', { brandId: 'b', title: 'Why is it dark?' }],
      [
        '/api/pieces/piece/plan',
        { channelIds: ['pl'], date: '2026-11-27', time: '18:00', format: 'thread', pillarId: 'sky', isMadeForIt: true },
      ],
    ]);
    expect(onMade).toHaveBeenCalledWith(made);
  });

  it('asks for a channel before anything is sent', () => {
    open();
    press(/^Plan /);
    expect(screen.getByRole('alert').textContent).toContain('Choose at least one channel');
    expect(server.calls).toEqual([]);
  });

  it('refused for its day is tried again without catching its idea twice', async () => {
    server.answer = serve(REFUSED);
    const { onMade } = open({ channelId: 'pl' });
    fill('Working title', 'Fog');
    press(/^Plan /);
    await screen.findByText('That day has passed.');
    server.answer = serve({ value: { slips: [] } });
    fill('Date', '2026-11-28');
    press(/^Plan /);
    await waitFor(() => expect(onMade).toHaveBeenCalled());
    expect(server.calls.map(({ path }) => path)).toEqual([
      '/api/pieces',
      '/api/pieces/piece/plan',
      '/api/pieces/piece/plan',
    ]);
  });

  it.each([
    ['a title that is refused', { refusal: { code: 'empty', message: 'A title is missing.' } }, 'A title is missing.'],
    ['a server that is gone', 'gone', 'Bimlo cannot be reached, so this is not saved yet.'],
  ] as const)('says so of %s, and makes none', async (_name, reply, words) => {
    server.answer = () => reply;
    const { onMade } = open({ channelId: 'pl' });
    press(/^Plan /);
    expect((await screen.findByRole('alert')).textContent).toBe(words);
    expect(onMade).not.toHaveBeenCalled();
  });
});

describe('the bar of picked posts', () => {
  const open = (count = 2) => {
    const deeds = { onChange: vi.fn(), onPickAll: vi.fn(), onCopyWeek: vi.fn(), onClear: vi.fn() };
    renderScreen(
      <PickBar
        count={count}
        shownCount={2}
        channels={[
          { id: 'gr', name: 'Glassrow' },
          { id: 'pl', name: 'Pithline' },
        ]}
        owners={[{ id: 'bex', name: 'Bex' }]}
        pillars={[{ id: 'sky', name: 'Sky' }]}
        campaigns={[]}
        firstDate="2026-11-26"
        weekStart={1}
        {...deeds}
      />,
    );
    return deeds;
  };
  /** Opens a menu of the bar and presses an entry. */
  const choose = (menu: string, entry: string) => {
    press(menu);
    fireEvent.click(screen.getByRole('button', { name: entry }));
  };

  it.each([
    ['Stage', 'ready', { kind: 'stage', stage: 'ready' }],
    ['Owner', 'Bex', { kind: 'owner', ownerId: 'bex' }],
    ['Pillar', 'Sky', { kind: 'pillar', pillarId: 'sky' }],
    ['Pillar', 'no pillar', { kind: 'pillar', pillarId: null }],
    ['Campaign', 'no campaign', { kind: 'campaign', campaignId: null }],
  ])('%s: %s', (menu, entry, change) => {
    const { onChange } = open();
    choose(menu, entry);
    expect(onChange).toHaveBeenCalledWith(change);
  });

  it.each([
    ['2026-12-16', 3],
    ['2026-11-30', 1],
    ['2026-11-15', -2],
  ])('copies to the week of %s', (day, weeks) => {
    const { onCopyWeek } = open();
    press('Duplicate');
    fill('A day of the week to copy them to', day);
    press('Copy them to that week');
    expect(onCopyWeek).toHaveBeenCalledWith(weeks);
  });

  it('offers no stage that is reached by leaving', () => {
    open();
    press('Stage');
    expect(screen.queryByRole('button', { name: 'published' })).toBeNull();
  });

  it.each([
    ['7', 7],
    ['-3', -3],
    ['+2', 2],
  ])('moves by %s days', (typed, days) => {
    const { onChange } = open();
    fill(/^Days/, typed);
    press('Move by');
    expect(onChange).toHaveBeenCalledWith({ kind: 'shift', days });
  });

  it.each(['', '0', 'two', '1.5', '12345'])('does not move by “%s” days', (typed) => {
    open();
    fill(/^Days/, typed);
    expect(screen.getByRole('button', { name: 'Move by' })).toHaveProperty('disabled', true);
  });

  it('sets a time once it can be read', () => {
    const { onChange } = open();
    expect(screen.getByRole('button', { name: 'Set time' })).toHaveProperty('disabled', true);
    fill('Time', '18');
    press('Set time');
    expect(onChange).toHaveBeenCalledWith({ kind: 'time', time: '18:00' });
  });

  it('duplicates to the channels that are ticked, or some weeks later', () => {
    const { onChange, onCopyWeek } = open();
    press('Duplicate');
    fireEvent.click(screen.getByLabelText('Glassrow'));
    fireEvent.click(screen.getByLabelText('Pithline'));
    fireEvent.click(screen.getByLabelText('Glassrow'));
    press('Duplicate to 1 channel');
    expect(onChange).toHaveBeenCalledWith({ kind: 'copy', days: 0, channelIds: ['pl'] });
    press('Duplicate to 0 channels');
    expect(onChange).toHaveBeenCalledTimes(1);
    press('Copy them 2 weeks later');
    expect(onCopyWeek).toHaveBeenCalledWith(2);
  });

  it('sets aside with a reason only', () => {
    const { onChange } = open();
    press('Set aside');
    const setThem = screen.getByRole('button', { name: 'Set 2 aside' });
    fireEvent.click(setThem);
    expect(onChange).not.toHaveBeenCalled();
    fill('Reason', 'Cloud');
    fireEvent.click(setThem);
    expect(onChange).toHaveBeenCalledWith({ kind: 'setAside', reason: 'Cloud' });
  });

  it('offers to pick the rest while there is a rest', () => {
    const { onPickAll } = open(1);
    press('pick all 2');
    expect(onPickAll).toHaveBeenCalled();
    cleanup();
    open(2);
    expect(screen.queryByText(/pick all/)).toBeNull();
  });
});

describe('an idea dropped on the calendar', () => {
  const idea: TrayIdea = {
    id: 'i',
    brandId: 'b',
    title: 'Moon',
    note: '',
    link: '',
    suggestedChannelIds: ['gr', 'pl'],
    kind: 'message',
    version: 4,
  };
  const open = () => {
    const deeds = { put: vi.fn(), undo: vi.fn(), readAnew: vi.fn() };
    const ask = vi.fn();
    const { result } = renderOnScreen(() => usePlanning(deeds, ask));
    return { ...deeds, ask, plan: result.current.plan };
  };
  const made = [testSlip({ id: '1', callSign: 'GR' }), testSlip({ id: '2', callSign: 'PL', version: 2 })];

  it('becomes a post for each channel suggested, told in one message and undone from it', async () => {
    server.answer = () => ({ value: { slips: made, changeId: 'c' } });
    const { plan, put, undo } = open();
    await act(() => plan(idea, { date: '2026-11-26' }));
    expect(put.mock.calls.map(([slip]) => slip)).toEqual(made);
    expect(screen.getByText('Planned “Moon” for Thu 26 Nov 14:30: GR, PL.')).toBeTruthy();
    await act(async () => press('Undo'));
    expect(undo.mock.calls).toEqual([['c']]);
  });

  it('on a channel becomes a post there, with what the opening asks for', async () => {
    server.answer = () => ({ value: { slips: made.slice(0, 1) } });
    const { plan } = open();
    const opening = { format: 'carousel', pillarId: 'sky' } as Opening;
    await act(() => plan(idea, { date: '2026-11-26', channelId: 'gr', time: '09:00', opening }));
    expect(server.calls[0]!.body).toEqual({
      channelIds: ['gr'],
      date: '2026-11-26',
      time: '09:00',
      format: 'carousel',
      pillarId: 'sky',
    });
  });

  it('on a day asks for channels where none is suggested', async () => {
    const { plan, ask } = open();
    const bare = { ...idea, suggestedChannelIds: [] };
    await act(() => plan(bare, { date: '2026-11-26' }));
    expect(ask).toHaveBeenCalledWith(bare, { date: '2026-11-26' });
    expect(server.calls).toEqual([]);
  });

  it('that could not be planned can be tried again', async () => {
    server.answer = () => 'gone';
    const { plan, put } = open();
    await act(() => plan(idea, { date: '2026-11-26' }));
    server.answer = () => ({ value: { slips: made } });
    await act(async () => press('Try again'));
    await waitFor(() => expect(put).toHaveBeenCalledTimes(2));
  });
});
