// @vitest-environment jsdom
import { act, cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { readFilter } from '@/core/calendar/filter';
import type { SavedView } from '@/data/calendar/savedViews';
import type { CalendarView } from '@/usecases/calendar/loadCalendar';
import { fakeServer, renderScreen, router, SHELL } from '@/ui/testScreen';
import { CalendarHead, type Query } from './CalendarHead';
import type { BrandShown } from './makeTimetable';
import { readLook, VIEWS, type ViewName } from './view';

let server: ReturnType<typeof fakeServer>;
beforeEach(() => {
  router.push.mockClear();
  router.refresh.mockClear();
  server = fakeServer(() => ({ value: {} }));
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const press = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }));
const [MANA, DEA] = ['00000000-0000-4000-8000-00000000000a', '00000000-0000-4000-8000-00000000000d'];
const own: BrandShown = {
  ...SHELL,
  people: [
    { ...SHELL.people[0]!, id: MANA },
    { ...SHELL.people[1]!, id: DEA },
  ],
  pillars: [{ id: 'sky', name: 'Sky', color: '#3B5F7D' }],
  campaigns: [{ id: 'show', name: 'Show', color: '#3B5F7D' }],
  today: SHELL.today,
};
const savedView = (change: Partial<SavedView>): SavedView => ({
  id: 'r',
  brandId: 'b',
  name: 'Gaps',
  ownerId: SHELL.me.id,
  shared: false,
  address: 'as=month&lacks=picture',
  ...change,
});

/** Draws the head as the address given asks for it. */
function open(query: Query = {}, savedViews: SavedView[] = [], counts = { posts: 3, openings: 1 }) {
  const arrangement = (query.as ?? 'lanes') as ViewName;
  const get = (name: string) => query[name] ?? null;
  const [onQuery, onTurn] = [vi.fn(async () => undefined), vi.fn()];
  renderScreen(
    <CalendarHead
      asked={{ arrangement, date: '2026-11-23', weeks: query.weeks === '2' ? 2 : 1 }}
      shown={{ dates: ['2026-11-23', '2026-11-29'], openings: [{}, {}] } as unknown as CalendarView}
      brandsShown={[own]}
      savedViews={savedViews}
      counts={counts}
      query={query}
      onQuery={onQuery}
      turning={false}
      onTurn={onTurn}
      waits={query.waits === 'yes'}
      look={readLook(get)}
      filter={readFilter(get)}
    />,
    { brands: [...SHELL.brands, { slug: 'ferry', name: 'Ferry' }] },
  );
  return { onQuery, onTurn };
}
/** The part of the address that was asked for last. */
const asked = (onQuery: ReturnType<typeof open>['onQuery']): unknown => (onQuery.mock.lastCall as unknown[])[0];

/** What stands beside the title. */
const howMuch = () => screen.getByRole('heading', { level: 1 }).nextElementSibling!.textContent;

describe('the head of the calendar', () => {
  it.each([
    [{}, '23 – 29 November', 'week 48 · 3 posts · 1 opening left'],
    [{ as: 'month' }, 'November 2026', '3 posts · 1 opening left'],
    [{ as: 'day' }, 'Monday 23 November', '3 posts · 1 opening left'],
    [{ as: 'stages' }, 'By stage', '3 posts · 1 opening left'],
    [{ as: 'list' }, 'Around November 2026', '3 posts · 1 opening left'],
  ])('of %o says what span shows, and how much', (query, title, words) => {
    open(query);
    expect(screen.getByRole('heading', { level: 1 }).textContent).toBe(title);
    expect(howMuch()).toBe(words);
  });

  it('counts one and many', () => {
    open({ as: 'month' }, [], { posts: 1, openings: 4 });
    expect(howMuch()).toBe('1 post · 4 openings left');
  });

  it('leads to each arrangement and marks the one that shows', () => {
    const { onQuery } = open({ as: 'month' });
    for (const { name, label } of VIEWS) {
      press(new RegExp(`${label}$`));
      expect(asked(onQuery)).toEqual({ as: name });
    }
    expect(screen.getByRole('button', { current: true }).textContent).toContain('Month');
  });

  it('turns the period, which stages do not have', () => {
    const { onTurn, onQuery } = open();
    press('Period after');
    press('Period before');
    expect(onTurn.mock.calls).toEqual([[1], [-1]]);
    press('Today');
    expect(asked(onQuery)).toEqual({ date: null });
    cleanup();
    open({ as: 'stages' });
    expect(screen.queryByRole('button', { name: 'Today' })).toBeNull();
  });

  it('shows one week of lanes or two', () => {
    const { onQuery } = open();
    press('Two weeks');
    expect(asked(onQuery)).toEqual({ weeks: '2' });
    press('One week');
    expect(asked(onQuery)).toEqual({ weeks: null });
  });

  it('says that changes wait for the server', () => {
    open();
    expect(screen.queryByText(/not saved yet/)).toBeNull();
    cleanup();
    open({ waits: 'yes' });
    expect(screen.getByText('not saved yet, trying again')).toBeTruthy();
  });
});

describe('the filters', () => {
  /** Ticks or unticks an entry of a menu. */
  const tick = (menu: RegExp, entry: string) => {
    press(menu);
    fireEvent.click(screen.getByLabelText(entry));
  };

  it.each([
    [/^Channels: /, 'Pithline', { channel: 'pl' }],
    [/^Owners: /, 'Dea', { owner: DEA }],
    [/^Pillars: /, 'Sky', { pillar: 'sky' }],
    [/^Stage, format/, 'production', { stage: 'production' }],
    [/^Stage, format/, 'Show', { campaign: 'show' }],
    [/^Stage, format/, 'carousel', { format: 'carousel' }],
  ])('%s: %s stands in the address', (menu, entry, part) => {
    const { onQuery } = open();
    tick(menu, entry);
    expect(asked(onQuery)).toMatchObject(part);
  });

  it('name what is chosen, and are all taken off at once', () => {
    const { onQuery } = open({ owner: `${DEA},${MANA}` });
    const owners = screen.getByRole('button', { name: 'Owners: Mana, Dea' });
    expect(owners.textContent).toBe('Mana +1');
    tick(/^Owners/, 'Mana');
    expect(asked(onQuery)).toMatchObject({ owner: DEA });
    press('Show all');
    expect(asked(onQuery)).toMatchObject({ owner: null });
  });

  it('are not said to hold where there are none', () => {
    open();
    expect(screen.queryByText('Show all')).toBeNull();
    expect(screen.getByRole('button', { name: 'Channels: All channels' })).toBeTruthy();
  });

  it('find words once the typing pauses', () => {
    vi.useFakeTimers();
    const { onQuery } = open();
    const field = screen.getByLabelText('Find words');
    fireEvent.change(field, { target: { value: 'ring' } });
    act(() => void vi.advanceTimersByTime(200));
    fireEvent.change(field, { target: { value: 'rings ' } });
    act(() => void vi.advanceTimersByTime(200));
    expect(onQuery).not.toHaveBeenCalled();
    act(() => void vi.advanceTimersByTime(50));
    expect(onQuery).toHaveBeenCalledTimes(1);
    expect(asked(onQuery)).toMatchObject({ words: 'rings' });
  });

  it('choose the brands that show', () => {
    const { onQuery } = open();
    tick(/^Brands: /, 'Ferry');
    expect(asked(onQuery)).toEqual({ brands: 'moor,ferry' });
  });
});

describe('the look', () => {
  const choose = (label: string, value: string) =>
    fireEvent.change(screen.getByLabelText(label), { target: { value } });

  it('stands in the address as far as it is not the usual one', () => {
    const { onQuery } = open();
    choose('colour means', 'stage');
    expect(asked(onQuery)).toEqual({ colour: 'stage' });
    choose('Which dates', 'both');
    expect(asked(onQuery)).toEqual({ dates: 'both' });
    press(/^Facts/);
    fireEvent.click(screen.getByLabelText('owner'));
    expect(asked(onQuery)).toEqual({ shows: 'time,title,stage,picture,missing,prep,owner' });
  });

  it('goes back to the usual one by leaving the address', () => {
    const { onQuery } = open({ colour: 'stage', dates: 'both', whose: 'mine' });
    choose('colour means', 'channel');
    expect(asked(onQuery)).toEqual({ colour: null });
    choose('Which dates', 'publishing');
    expect(asked(onQuery)).toEqual({ dates: null });
    choose('Whose working dates', 'all');
    expect(asked(onQuery)).toEqual({ whose: null });
  });

  it('of the list has columns, of the stages a split of the work', () => {
    open({ as: 'list' });
    expect(screen.getByRole('button', { name: /^Columns/ })).toBeTruthy();
    expect(screen.queryByLabelText('Which dates')).toBeNull();
    cleanup();
    const { onQuery } = open({ as: 'stages' });
    press('Split by next step');
    expect(asked(onQuery)).toEqual({ split: 'next' });
  });
});

describe('saved views', () => {
  it('are gone to, and the present one is named', () => {
    open({ as: 'month', lacks: 'picture' }, [savedView({}), savedView({ id: 's', name: 'Team', address: 'as=list' })]);
    press('Saved view: Gaps');
    fireEvent.click(screen.getByRole('button', { name: 'Team' }));
    expect(router.push).toHaveBeenCalledWith('/moor/calendar?as=list');
  });

  it('keep what shows under a name', async () => {
    open({ as: 'month', lacks: 'picture' });
    press('Saved views');
    expect(screen.getByText(/There is none yet/)).toBeTruthy();
    fireEvent.change(screen.getByLabelText('Name of this view'), { target: { value: 'No picture' } });
    fireEvent.click(screen.getByLabelText('Shared with everybody'));
    press('Save view');
    expect(await screen.findByText('Saved as “No picture”, shared with everybody.')).toBeTruthy();
    expect(server.calls[0]).toMatchObject({
      method: 'POST',
      body: { brandId: 'b', name: 'No picture', shared: true, address: 'as=month&lacks=picture' },
    });
  });

  it('are deleted by who saved them, and come back', async () => {
    open({}, [savedView({}), savedView({ id: 's', name: 'Team', ownerId: 'dea', shared: true })]);
    press('Saved views');
    expect(screen.queryByRole('button', { name: 'Delete “Team”' })).toBeNull();
    press('Delete “Gaps”');
    await screen.findByText('Deleted “Gaps”.');
    press('Undo');
    await waitFor(() => expect(router.refresh).toHaveBeenCalledTimes(2));
    expect(server.calls.map(({ method, body }) => [method, body.id ?? body.name])).toEqual([
      ['DELETE', 'r'],
      ['POST', 'Gaps'],
    ]);
  });

  it('that may not be kept say why', async () => {
    server.answer = () => ({ refusal: { code: 'taken', message: 'There is one of that name.' } });
    open();
    press('Saved views');
    fireEvent.change(screen.getByLabelText('Name of this view'), { target: { value: 'Gaps' } });
    press('Save view');
    expect(await screen.findByText('There is one of that name.')).toBeTruthy();
    expect(router.refresh).not.toHaveBeenCalled();
  });

  it('export what is shown', () => {
    open({ as: 'month' });
    press('Saved views');
    expect(screen.getByRole('link', { name: 'CSV' }).getAttribute('href')).toBe(
      '/api/calendar/export?brand=moor&file=csv&as=month',
    );
  });
});
