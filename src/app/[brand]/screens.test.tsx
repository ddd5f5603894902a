// @vitest-environment jsdom
import { act, cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { BatchStep } from '@/data/prep/batchDays';
import type { DeskStep } from '@/data/prep/steps';
import { SHIPPED_PREP } from '@/core/prep/shipped';
import type { DeskSteps } from '@/usecases/desk/loadDeskSteps';
import { claimDrafts, keepDraft, listDrafts } from '@/ui/drafts';
import { fakeServer, renderScreen, router, SHELL } from '@/ui/testScreen';
import { BatchDayScreen } from './batch/[id]/BatchDayScreen';
import { StepList } from './desk/StepList';
import { DraftSaver } from './DraftSaver';
import { IdeaDialog } from './IdeaDialog';
import { PlanDialog } from './PlanDialog';
import { PrepSheets } from './settings/prep/PrepSheets';

let server: ReturnType<typeof fakeServer>;
beforeEach(() => {
  localStorage.clear();
  router.refresh.mockClear();
  router.push.mockClear();
  server = fakeServer(() => ({ value: {} }));
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const press = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }));
const fill = (label: string | RegExp, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });

const holder = {
  title: 'Rings',
  channelId: 'pl',
  callSign: 'PL',
  color: '#B4531F',
  date: '2026-12-01',
  brandSlug: 'moor',
};
const deskStep = (change: Partial<DeskStep>): DeskStep => ({
  id: 's',
  brandId: 'b',
  postId: 'a',
  pieceId: null,
  position: 1,
  title: 'Edit',
  work: 'editing',
  ownerId: 'mana',
  craft: null,
  lead: 2,
  leadIn: 'working',
  minutes: 30,
  note: '',
  needed: false,
  ticksItself: false,
  pinned: null,
  day: '2026-11-23',
  plannedOn: '2026-11-10',
  doneAt: null,
  doneOn: null,
  doneBy: null,
  version: 1,
  after: null,
  before: null,
  holder,
  ...change,
});

describe('the steps of a desk', () => {
  const draw = (steps: Partial<DeskSteps>, me = SHELL.me) =>
    renderScreen(
      <StepList
        steps={{ late: [], today: [], ahead: [], loads: [], counts: { late: 0, later: 0 }, unowned: [], ...steps }}
        person={SHELL.me}
      />,
      { me },
    );
  const day = (name: string) => within(screen.getByRole('group', { name }));

  it('are told by day, with what is too much', () => {
    draw({
      late: [deskStep({ id: '1', title: 'Write', day: '2026-11-20' })],
      today: [deskStep({ id: '2' })],
      ahead: [deskStep({ id: '3', title: 'Send', day: '2026-11-25', minutes: null })],
      loads: [{ date: '2026-11-23', minutes: 400, steps: 2, capacity: 360, isTooMuch: true }],
      counts: { late: 3, later: 12 },
    });
    expect(day('Late').getByText('since Fri 20 Nov')).toBeTruthy();
    expect(day('Late').getByText('and 2 more')).toBeTruthy();
    expect(day('Today').getByText('6 h 40 of 6 h: too much')).toBeTruthy();
    expect(day('Wed 25 Nov').getByText('Send')).toBeTruthy();
    expect(screen.getByText('12 steps further ahead.')).toBeTruthy();
  });

  it('say nothing is due where nothing is', () => {
    draw({});
    expect(day('Today').getByText('No step is due today.')).toBeTruthy();
  });

  it('lead to their post, or to their piece', () => {
    draw({
      today: [
        deskStep({ id: '1' }),
        deskStep({ id: '2', postId: null, pieceId: 'p', holder: { ...holder, title: 'The talk', callSign: null } }),
      ],
    });
    expect(screen.getByRole('link', { name: 'Rings' }).getAttribute('href')).toBe(
      '/moor/calendar?date=2026-12-01&post=a',
    );
    expect(screen.getByRole('link', { name: 'The talk' }).getAttribute('href')).toBe('/moor/pieces/p');
  });

  it('of one name are folded into one line from three on', () => {
    draw({ today: ['1', '2', '3'].map((id) => deskStep({ id, title: 'Reply' })) });
    expect(screen.queryAllByRole('checkbox')).toHaveLength(0);
    press('+ Reply, 3 times');
    expect(screen.getAllByRole('checkbox')).toHaveLength(3);
  });

  it('say who waits for them, and whom they wait for', () => {
    draw({
      today: [
        deskStep({ id: '1', before: { title: 'Record', ownerId: 'dea' } }),
        deskStep({ id: '2', title: 'Cut', after: { title: 'Record', ownerId: 'dea' } }),
      ],
    });
    expect(screen.getByText(/Waiting for you/).textContent).toContain('Dea for “Edit”');
    expect(screen.getByText('after Dea: Record')).toBeTruthy();
    expect(screen.getByText('then Dea')).toBeTruthy();
  });

  it('are ticked, and opened again from the message', async () => {
    draw({ today: [deskStep({})] });
    fireEvent.click(screen.getByLabelText('Done: Edit of Rings'));
    await screen.findByText('Done: Edit.');
    press('Undo');
    await waitFor(() => expect(server.calls.map(({ body }) => body)).toEqual([{ done: true }, { done: false }]));
  });

  it('that could not be ticked show as open, with the reason', async () => {
    server.answer = () => ({ refusal: { code: 'notYours', message: 'Not yours.' } });
    draw({ today: [deskStep({})] });
    const box = screen.getByLabelText<HTMLInputElement>('Done: Edit of Rings');
    fireEvent.click(box);
    await screen.findByText('Not yours.');
    expect(box.checked).toBe(false);
  });

  it('are handed over, many at once, by those who may change them', async () => {
    server.answer = () => ({ value: { count: 2 } });
    draw({ today: [deskStep({ id: '1' }), deskStep({ id: '2', title: 'Cut' })] });
    press('Reassign…');
    press('Pick these');
    fill('Reassign the picked steps to', 'dea');
    await screen.findByText('Reassigned 2 steps to Dea.');
    expect(server.calls[0]).toMatchObject({ path: '/api/steps/hand', body: { ids: ['1', '2'], personId: 'dea' } });
    expect(router.refresh).toHaveBeenCalled();
    cleanup();
    draw({ today: [deskStep({})] }, { ...SHELL.people[1]!, role: 'reviewer' });
    expect(screen.queryByRole('button', { name: 'Reassign…' })).toBeNull();
    expect(screen.getByRole<HTMLInputElement>('checkbox').disabled).toBe(true);
  });
});

describe('a batch day', () => {
  const batch = {
    id: 'd',
    brandId: 'b',
    work: 'recording' as const,
    name: 'In the dome',
    day: '2026-11-25',
    startsAt: '10:00',
    needs: [{ text: 'The red lamp', done: false }],
    version: 1,
  };
  const step = (id: string, change: Partial<BatchStep> = {}): BatchStep => ({
    id,
    postId: 'a',
    pieceId: null,
    title: `Record ${id}`,
    minutes: 45,
    ownerId: 'dea',
    note: '',
    doneOn: null,
    holder,
    ...change,
  });
  /** Keeps the day as the server does: a change on an older version is refused. */
  function draw(steps: BatchStep[]) {
    let stored: Record<string, unknown> & { version: number } = batch;
    server.answer = ({ body: { version, stepIds: _ids, ...change } }) => {
      if (version !== undefined && version !== stored.version)
        return { refusal: { code: 'stale', message: 'Too late.' } };
      stored = { ...stored, ...change, version: stored.version + 1 };
      return { value: stored };
    };
    renderScreen(<BatchDayScreen batch={batch} steps={steps} />);
  }

  it('has its running order with times', () => {
    draw([step('1'), step('2', { minutes: 30 }), step('3')]);
    const rows = within(screen.getByRole('region', { name: 'Running order' })).getAllByRole('listitem');
    expect(rows.map((row) => row.textContent!.slice(0, 5))).toEqual(['10:00', '10:45', '11:15']);
    expect(screen.getByRole('banner').textContent).toContain('3 steps, 2 h');
  });

  it('takes quick changes one after the other, none on what the other left behind', async () => {
    draw([step('1'), step('2')]);
    press('Record 2 of Rings earlier');
    fill('Something to have at hand', 'The big disk');
    press('Add');
    await screen.findByText('The big disk');
    expect(server.calls.map(({ body }) => body)).toEqual([
      { version: 1, stepIds: ['2', '1'] },
      {
        version: 2,
        needs: [
          { text: 'The red lamp', done: false },
          { text: 'The big disk', done: false },
        ],
      },
    ]);
    expect(screen.getByLabelText<HTMLInputElement>('Something to have at hand').value).toBe('');
  });

  it('keeps what was typed when it could not be added', async () => {
    draw([]);
    server.answer = () => 'gone';
    fill('Something to have at hand', 'The big disk');
    press('Add');
    await screen.findByText(/cannot be reached/);
    expect(screen.getByLabelText<HTMLInputElement>('Something to have at hand').value).toBe('The big disk');
  });

  it('ticks the steps themselves', async () => {
    draw([step('1')]);
    fireEvent.click(screen.getByLabelText('Done: Record 1 of Rings'));
    await waitFor(() => expect(server.calls[0]).toMatchObject({ path: '/api/steps/1', body: { done: true } }));
  });

  it('is called off, and leads back to the desk', async () => {
    draw([step('1')]);
    press('Cancel the batch day');
    await waitFor(() => expect(router.push).toHaveBeenCalledWith('/moor/desk'));
  });
});

describe('catching an idea', () => {
  it('needs a title, and says so', async () => {
    server.answer = () => ({ refusal: { code: 'emptyTitle', field: 'title', message: 'Give it a title.' } });
    const onClose = vi.fn();
    renderScreen(<IdeaDialog onClose={onClose} />);
    fireEvent.submit(screen.getByLabelText('Title').closest('form')!);
    expect(await screen.findByText('Give it a title.')).toBeTruthy();
    expect(onClose).not.toHaveBeenCalled();
  });

  it('takes note, link and channels along', async () => {
    const onClose = vi.fn();
    renderScreen(<IdeaDialog onClose={onClose} />);
    fill('Title', 'Moonbow');
    fill('Note', 'At midnight');
    fireEvent.click(screen.getByLabelText(/Pithline/));
    fireEvent.submit(screen.getByLabelText('Title').closest('form')!);
    await waitFor(() => expect(onClose).toHaveBeenCalled());
    expect(server.calls[0]).toMatchObject({
      path: '/api/pieces',
      body: { brandId: 'b', title: 'Moonbow', note: 'At midnight', channelIds: ['pl'] },
    });
  });
});

describe('planning a piece', () => {
  const draw = () => {
    const done = { onPlanned: vi.fn(), onClose: vi.fn() };
    renderScreen(
      <PlanDialog
        piece={{ id: 'p', title: 'Rings', kind: 'message', suggestedChannelIds: ['pl'] }}
        date="2026-12-01"
        {...done}
      />,
    );
    return done;
  };

  it('names its deed by what it will do', () => {
    draw();
    expect(screen.getByRole('button', { name: 'Plan 1 post for Tue 1 Dec' })).toBeTruthy();
    fill(/^Time/, '1430');
    expect(screen.getByRole('button', { name: 'Plan 1 post for Tue 1 Dec 14:30' })).toBeTruthy();
    fill('Date', '');
    expect(screen.getByRole('button', { name: 'Plan 1 post without a date' })).toBeTruthy();
  });

  it('hands on what was made, or says why nothing was', async () => {
    const done = draw();
    server.answer = () => ({ refusal: { code: 'past', message: 'That has passed.' } });
    press('Plan 1 post for Tue 1 Dec');
    expect(await screen.findByText('That has passed.')).toBeTruthy();
    server.answer = () => ({ value: { slips: [{ id: 'a' }], changeId: 'c' } });
    press('Plan 1 post for Tue 1 Dec');
    await waitFor(() => expect(done.onPlanned).toHaveBeenCalledWith({ slips: [{ id: 'a' }], changeId: 'c' }));
    expect(server.calls.at(-1)?.body).toEqual({ channelIds: ['pl'], date: '2026-12-01', time: null });
  });

  it('offers each channel its next opening, and one day for all where that is wanted', async () => {
    const opening = { channelId: 'pl', date: '2026-12-03', time: '10:00', format: null, pillarId: null };
    server.answer = ({ method }) => ({
      value: method === 'GET' ? [opening, { ...opening, date: '2026-12-05' }] : { slips: [{ id: 'a' }] },
    });
    const done = draw();
    await screen.findByRole('button', { name: 'Plan 1 post in its opening' });
    fill('Opening of Pithline', '1');
    press('Plan 1 post in its opening');
    await waitFor(() => expect(done.onPlanned).toHaveBeenCalled());
    expect(server.calls.at(-1)?.body).toMatchObject({ date: null, places: [{ channelId: 'pl', date: '2026-12-05' }] });
    fireEvent.click(screen.getByLabelText('all on one day'));
    expect(screen.getByRole('button', { name: 'Plan 1 post for Tue 1 Dec' })).toBeTruthy();
  });
});

describe('prep sheets', () => {
  const draw = () =>
    renderScreen(
      <PrepSheets
        sheets={[
          { subject: 'photo', isOwn: false, lines: [...SHIPPED_PREP.photo], version: 4 },
          { subject: 'piece:talk', isOwn: true, lines: [...SHIPPED_PREP['piece:talk']], version: 0 },
        ]}
      />,
    );

  it('are of posts and of pieces, and say what they count back from', () => {
    draw();
    expect(screen.getByText(/Every new photo gets these steps/)).toBeTruthy();
    fireEvent.click(within(screen.getByRole('group', { name: 'Pieces' })).getByRole('button', { name: /^talk/ }));
    expect(screen.getByText(/A piece that is a talk gets these steps/)).toBeTruthy();
  });

  it('are changed as a whole, and kept when one says so', async () => {
    draw();
    press(SHIPPED_PREP.photo[0]!.title);
    fill('What the step is', 'Write it');
    press('Change the step');
    expect(server.calls).toEqual([]);
    server.answer = ({ body }) => ({ value: body });
    press('Save these steps');
    await screen.findByText('Saved. New posts get these steps.');
    expect(server.calls[0]).toMatchObject({ path: '/api/settings/prep', body: { brandId: 'b', subject: 'photo' } });
    expect((server.calls[0]!.body.lines as { title: string }[])[0]!.title).toBe('Write it');
  });

  it('that somebody else kept meanwhile are shown, or replaced when one keeps one’s own once more', async () => {
    const { rerender } = draw();
    press(SHIPPED_PREP.photo[0]!.title);
    press('Remove');
    server.answer = () => ({ refusal: { code: 'stale', message: 'Somebody else saved this.' } });
    press('Save these steps');
    await screen.findByText(/Somebody else saved this/);
    rerender(
      <PrepSheets sheets={[{ subject: 'photo', isOwn: true, lines: SHIPPED_PREP.photo.slice(0, 1), version: 5 }]} />,
    );
    press('Save these steps');
    await waitFor(() => expect(server.calls.map(({ seen }) => seen)).toEqual(['"4"', '"5"']));
    await screen.findByText(/Somebody else saved this/);
    press('Show theirs instead of mine');
    expect(screen.getAllByRole('listitem')).toHaveLength(1);
    expect(screen.queryByText(/Somebody else saved this/)).toBeNull();
  });

  it('go back to what they were, before they are kept or after', async () => {
    draw();
    press(SHIPPED_PREP.photo[0]!.title);
    press('Remove');
    press('Cancel');
    expect(screen.getByRole('button', { name: SHIPPED_PREP.photo[0]!.title })).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: /^talk/ }));
    server.answer = () => ({ value: { lines: [...SHIPPED_PREP['piece:talk']] } });
    press('Use the steps that ship with Bimlo');
    await waitFor(() =>
      expect(server.calls[0]).toMatchObject({ method: 'DELETE', body: { brandId: 'b', subject: 'piece:talk' } }),
    );
  });
});

describe('texts that were left unsaved', () => {
  const draft = (at: string, field: string) => ({ at, field, text: 'Typed', base: '', version: 3 });
  const wait = (ms: number) => act(() => vi.advanceTimersByTimeAsync(ms));
  beforeEach(() => void vi.useFakeTimers());

  it('are saved where nothing on screen does it, parts as parts', async () => {
    keepDraft(draft('/api/posts/a', 'caption'));
    keepDraft(draft('/api/posts/a', 'part:1'));
    keepDraft(draft('/api/pieces/p', 'note'));
    const release = claimDrafts('/api/pieces/p');
    renderScreen(<DraftSaver />);
    await wait(10);
    expect(server.calls.map(({ path, body }) => [path, body])).toEqual([
      ['/api/posts/a', { version: 3, caption: 'Typed' }],
      ['/api/posts/a', { version: 3, partTexts: { 1: 'Typed' } }],
    ]);
    expect(listDrafts().map(({ at }) => at)).toEqual(['/api/pieces/p']);
    release();
    await wait(5_000);
    expect(listDrafts()).toEqual([]);
  });

  it('are kept while the server is gone, and where somebody else changed theirs', async () => {
    keepDraft(draft('/api/posts/a', 'caption'));
    server.answer = () => 'gone';
    renderScreen(<DraftSaver />);
    await wait(10);
    server.answer = () => ({ refusal: { code: 'stale', message: 'Changed.' } });
    await wait(5_000);
    expect([server.calls.length, listDrafts().length]).toEqual([2, 1]);
  });
});
