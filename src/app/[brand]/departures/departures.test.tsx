// @vitest-environment jsdom
import { act, cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { ParcelPicture } from '@/core/delivery/network';
import { testSlip } from '@/core/calendar/testSlip';
import { SHIPPED_RULE_SHEETS } from '@/core/rulesheets/shipped';
import type { ShownHold } from '@/usecases/delivery/holdAll';
import { daysOfView } from '@/core/delivery/timetable';
import type { Departure, TimetableAsk } from '@/usecases/delivery/loadDepartures';
import { NuqsTestingAdapter } from 'nuqs/adapters/testing';
import { fakeServer, renderScreen, router, SHELL } from '@/ui/testScreen';
import { DepartureBoard } from './DepartureBoard';

let server: ReturnType<typeof fakeServer>;
beforeEach(() => {
  router.refresh.mockClear();
  server = fakeServer(() => ({ value: {} }));
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const TODAY = '2026-11-23';
const stoop = {
  ...SHELL.channels[0]!,
  id: 'hs',
  callSign: 'HS',
  name: 'Homestoop',
  sheet: SHIPPED_RULE_SHEETS.find(({ slug }) => slug === 'homestoop')!,
};
const departure = (
  change: Partial<Omit<Departure, 'slip'>> & { slip?: Parameters<typeof testSlip>[0] } = {},
): Departure => ({
  fitness: 'fit',
  sender: 'bimlo',
  reason: '',
  nextTryAt: null,
  attempts: 0,
  isAsked: false,
  publishedAt: null,
  address: '',
  handOver: null,
  ...change,
  slip: testSlip({ channelId: 'pl', callSign: 'PL', date: TODAY, time: '14:30', stage: 'scheduled', ...change.slip }),
});
const picture = (change: Partial<ParcelPicture> = {}): ParcelPicture => ({
  id: 'p',
  sha256: 'a'.repeat(64),
  mime: 'image/jpeg',
  alt: 'The dome at dusk',
  fileName: 'dome.jpg',
  bytes: 11_000,
  recipe: { crop: null, toMime: null, toBytes: null },
  ...change,
});
const byHand = (pictures: ParcelPicture[] = [picture()], id = 'hand', title = 'Come up') =>
  departure({
    slip: { id, title, channelId: 'hs', callSign: 'HS', version: 3 },
    fitness: 'handOver',
    sender: 'byHand',
    handOver: { texts: [{ label: 'Caption', text: 'Bring a hat.' }], pictures },
  });

const ASK: TimetableAsk = { view: 'days', at: TODAY, channels: [], sender: null, sort: null };
const open = (
  lines: Departure[],
  now = `${TODAY}T13:00:00.000Z`,
  {
    missed = [],
    ask = {},
    query = '',
    hold = null,
  }: { missed?: Departure[]; ask?: Partial<TimetableAsk>; query?: string; hold?: ShownHold | null } = {},
) =>
  renderScreen(
    <NuqsTestingAdapter searchParams={query}>
      <DepartureBoard
        timetable={{ ...daysOfView(ask.view ?? 'days', ask.at ?? TODAY, 1), missed, lines }}
        ask={{ ...ASK, ...ask }}
        hold={hold}
        now={now}
        today={TODAY}
      />
    </NuqsTestingAdapter>,
    { channels: [SHELL.channels[0]!, stoop] },
  );
const press = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }));
const row = (title: string) => within(screen.getByRole('link', { name: title }).closest('tr')!);

describe('the timetable', () => {
  it('stands by day, and tells how many go, are out and in trouble', () => {
    open([
      departure({ slip: { id: '1', title: 'Gone', time: '09:00' }, fitness: 'out' }),
      departure({ slip: { id: '2', title: 'Wrong', time: '10:00' }, fitness: 'failed' }),
      departure({ slip: { id: '3', title: 'Later', date: '2026-11-24' } }),
      departure({ slip: { id: '4', title: 'Far', date: '2026-11-27', time: null } }),
    ]);
    expect(screen.getByRole('status').textContent).toBe('Monday 23 November · 1 to send, 1 published, 1 in trouble');
    expect(screen.getAllByRole('table').map((table) => table.querySelector('caption')!.textContent)).toEqual([
      'Today, Monday 23 November',
      'Tomorrow, Tuesday 24 November',
      'Friday 27 November',
    ]);
    expect(row('Far').getByText('–')).toBeTruthy();
  });

  it.each([
    ['before what is to come', '13:00', ['09:00', '13:00 now', '14:30']],
    ['after all that has been', '23:00', ['09:00', '14:30', '23:00 now']],
  ])('has its line for now %s', (_name, time, expected) => {
    const posts = [
      departure({ slip: { id: '1', time: '09:00' }, fitness: 'out' }),
      departure({ slip: { id: '2', time: '14:30' } }),
    ];
    open(posts, `${TODAY}T${time}:00.000Z`);
    const rows = within(screen.getByRole('table')).getAllByRole('row').slice(1);
    expect(rows.map((one) => one.querySelector('td')!.textContent)).toEqual(expected);
  });

  it('is headed by what was not sent on its day, with that day, and ends with a total', () => {
    open(
      [departure({ slip: { id: '2', title: 'Later' } }), departure({ slip: { id: '3' }, sender: 'byHand' })],
      undefined,
      { missed: [departure({ slip: { id: '1', title: 'Missed', date: '2026-11-19' }, fitness: 'held' })] },
    );
    const [first] = screen.getAllByRole('table');
    expect(first!.querySelector('caption')!.textContent).toBe('Not sent on their day');
    expect(within(first!).getByRole('link', { name: 'Missed' })).toBeTruthy();
    expect(row('Missed').getByText('19 Nov')).toBeTruthy();
    expect(screen.getByText('2 posts: 2 to send (1 by hand)')).toBeTruthy();
    expect(screen.getByRole('status').textContent).toContain('1 not sent on their day');
  });

  it('shows other days by one click, and steps through them', () => {
    open([departure()], undefined, { ask: { view: 'week' }, query: '?show=week&channel=hs' });
    const href = (name: string) => screen.getByRole('link', { name }).getAttribute('href');
    expect(href('Next days')).toBe('/moor/departures?channel=hs');
    expect(href('This month')).toBe('/moor/departures?show=month&channel=hs');
    expect(href('Days before')).toBe('/moor/departures?show=week&at=2026-11-22&channel=hs');
    expect(href('Days after')).toBe('/moor/departures?show=week&at=2026-11-30&channel=hs');
    expect(screen.getByRole('link', { name: 'This week' }).getAttribute('aria-current')).toBe('page');
    expect(screen.getByText('23 – 29 November')).toBeTruthy();
  });

  it.each([
    ['days that passed', { view: 'month', at: '2026-10-05' }],
    ['a part of them', { sender: 'bimlo' }],
    ['only what is ready', { view: 'ready' }],
  ] as const)('says how today stands only where all of it shows: not for %s', (_name, ask) => {
    open([], undefined, { ask });
    expect(screen.getByRole('status').textContent).toBe('Monday 23 November');
  });

  it('says of a part with nothing in it that there is more', () => {
    open([], undefined, { ask: { sender: 'byHand' } });
    expect(screen.getByRole('heading', { name: 'Nothing of that in these days' })).toBeTruthy();
    expect(screen.getByLabelText<HTMLSelectElement>('by Bimlo or by hand').value).toBe('byHand');
  });

  it('with nothing on it leads to the calendar', () => {
    open([]);
    expect(screen.getByRole('link', { name: 'Plan some on the calendar.' }).getAttribute('href')).toBe(
      '/moor/calendar',
    );
  });

  it('is read anew every few seconds while it is looked at', () => {
    vi.useFakeTimers();
    open([departure()]);
    act(() => void vi.advanceTimersByTime(4_000));
    expect(router.refresh).toHaveBeenCalledTimes(1);
    vi.spyOn(document, 'visibilityState', 'get').mockReturnValue('hidden');
    act(() => void vi.advanceTimersByTime(8_000));
    expect(router.refresh).toHaveBeenCalledTimes(1);
    vi.restoreAllMocks();
  });
});

describe('carrying over', () => {
  const proposed = [
    { id: 'a', version: 2, channelId: 'pl', title: 'First', was: { date: '2026-11-19', time: '10:00' } },
    { id: 'b', version: 3, channelId: 'hs', title: 'Second', was: { date: '2026-11-20', time: null } },
    { id: 'c', version: 1, channelId: 'pl', title: 'Third', was: { date: '2026-11-20', time: '11:00' } },
  ].map((one, at) => ({ ...one, to: at === 2 ? null : { date: `2026-11-2${5 + at}`, time: '16:40' } }));
  const opened = async () => {
    server.answer = ({ method }) =>
      method === 'GET'
        ? { value: proposed }
        : {
            value: { outcome: { changeId: 'x', label: 'Carried 1 post over', postIds: ['a'], refused: [], notes: [] } },
          };
    open([], undefined, { missed: [departure({ slip: { id: 'a', date: '2026-11-19' }, fitness: 'held' })] });
    press('Carry over…');
    return within(await screen.findByRole('dialog'));
  };

  it('shows where each goes, and moves those that are ticked in one go', async () => {
    const dialog = await opened();
    expect(dialog.getAllByRole('listitem').map((item) => item.textContent)).toEqual([
      expect.stringMatching(/First.*Thu 19 Nov 10:00.*Wed 25 Nov 16:40/),
      expect.stringMatching(/Second.*Fri 20 Nov.*Thu 26 Nov 16:40/),
      expect.stringMatching(/Third.*no opening in 60 days/),
    ]);
    fireEvent.click(dialog.getByLabelText(/Second/));
    fireEvent.click(dialog.getByRole('button', { name: 'Move 1 post' }));
    expect(await screen.findByText('Carried 1 post over.')).toBeTruthy();
    expect(server.calls.at(-1)).toMatchObject({
      path: '/api/calendar/changes',
      body: {
        posts: [{ id: 'a', version: 2 }],
        change: { kind: 'carry', places: [{ id: 'a', date: '2026-11-25', time: '16:40' }] },
      },
    });
    expect(router.refresh).toHaveBeenCalled();
    expect(screen.getByRole('button', { name: 'Undo' })).toBeTruthy();
  });

  it('says why it was not done, and stays open', async () => {
    const dialog = await opened();
    server.answer = () => ({ refusal: { code: 'stale', message: 'Somebody else changed this while.' } });
    fireEvent.click(dialog.getByRole('button', { name: 'Move 2 posts' }));
    expect(await dialog.findByText('Somebody else changed this while.')).toBeTruthy();
  });
});

describe('holding all', () => {
  const HOLD = { reason: 'Storm in town', since: `${TODAY}T12:00:00.000Z`, personId: SHELL.people[0]!.id, overdue: 2 };

  it('asks why, and says why it was not done', async () => {
    open([departure()]);
    press('Hold all…');
    const dialog = within(await screen.findByRole('dialog'));
    fireEvent.change(dialog.getByLabelText('Why'), { target: { value: 'Storm in town' } });
    server.answer = () => ({ refusal: { code: 'onHold', message: 'All is on hold already.' } });
    fireEvent.click(dialog.getByRole('button', { name: 'Hold all posts' }));
    expect(await dialog.findByText('All is on hold already.')).toBeTruthy();
    server.answer = () => ({ value: true });
    fireEvent.click(dialog.getByRole('button', { name: 'Hold all posts' }));
    await waitFor(() => expect(router.refresh).toHaveBeenCalled());
    expect(server.calls.at(-1)).toMatchObject({ path: '/api/departures/hold', body: { reason: 'Storm in town' } });
  });

  it.each([
    ['spread', 'Move each to the next opening of its channel', true],
    ['as timed', /Keep their times/, false],
  ])('is told with who and why, and released %s', async (_name, choice, spread) => {
    open([departure({ fitness: 'heldWithAll' })], undefined, { hold: HOLD });
    expect(screen.getByRole('alert').textContent).toMatch(
      /^All posts are on hold since 23 Nov 12:00, by .+: Storm in town2 posts had their time meanwhile\./,
    );
    expect(screen.queryByRole('button', { name: 'Hold all…' })).toBeNull();
    server.answer = () => ({ value: { spread: null } });
    press('Release…');
    const dialog = within(await screen.findByRole('dialog'));
    fireEvent.click(dialog.getByLabelText(choice));
    fireEvent.click(dialog.getByRole('button', { name: 'Release all posts' }));
    expect(await screen.findByText('All posts are released.')).toBeTruthy();
    expect(server.calls.at(-1)).toMatchObject({ method: 'DELETE', path: '/api/departures/hold', body: { spread } });
  });
});

describe('how fit a departure is', () => {
  it.each<[string, Partial<Omit<Departure, 'slip'>>, RegExp]>([
    ['fit', { fitness: 'fit' }, /ready to send$/],
    ['leaving', { fitness: 'sending' }, /sending now/],
    ['tried once', { fitness: 'retrying', attempts: 1, reason: 'busy' }, /tried once · busyagain soon/],
    [
      'tried more than once',
      { fitness: 'retrying', attempts: 2, reason: 'busy', nextTryAt: `${TODAY}T14:36:00.000Z` },
      /tried 2 times · busyagain 23 Nov 14:36/,
    ],
    ['failed', { fitness: 'failed', reason: 'this account may not post that' }, /failed · this account may not/],
    ['held', { fitness: 'held' }, /on hold · it missed its time/],
    ['held for its rules', { fitness: 'held', reason: 'Pithline is archived.' }, /on hold · Pithline is archived\./],
    ['may be published', { fitness: 'unknown', isAsked: true }, /may be published · .*keeps asking/],
    ['may be published, asked in vain', { fitness: 'unknown' }, /may be published · .*please look/],
    ['not scheduled', { fitness: 'notScheduled' }, /not scheduled: will not be sent/],
    ['not fit', { fitness: 'notFit', reason: 'no picture' }, /no picture/],
    ['out', { fitness: 'out', publishedAt: `${TODAY}T14:30:02.000Z` }, /published 14:30:02/],
  ])('%s', (_name, change, words) => {
    open([departure(change)]);
    expect(screen.getByRole('link', { name: 'Dome night' }).closest('tr')!.textContent).toMatch(words);
  });

  it('leads to where it is out', () => {
    open([departure({ fitness: 'out', address: 'https://pithline.example/1' })]);
    expect(screen.getByRole('link', { name: 'See it: Dome night' }).getAttribute('href')).toBe(
      'https://pithline.example/1',
    );
  });

  it.each([
    ['failed', 'Try again'],
    ['held', 'Send it now'],
  ] as const)('%s can be tried again', async (fitness, word) => {
    open([departure({ fitness, slip: { version: 5 } })]);
    press(`${word}: Dome night`);
    await waitFor(() => expect(router.refresh).toHaveBeenCalled());
    expect(server.calls[0]).toMatchObject({ path: '/api/posts/a/deeds', body: { deed: 'tryAgain', version: 5 } });
  });

  it('says why it could not be tried again', async () => {
    server.answer = () => ({ refusal: { code: 'stale', message: 'Somebody else changed this while.' } });
    open([departure({ fitness: 'failed' })]);
    press(/Try again/);
    expect(await screen.findByText('Somebody else changed this while.')).toBeTruthy();
    expect(router.refresh).not.toHaveBeenCalled();
  });
});

describe('the hand-over', () => {
  function clipboard(writeText: (text: string) => Promise<void>) {
    vi.stubGlobal('isSecureContext', true);
    vi.stubGlobal('navigator', { ...navigator, clipboard: { writeText } });
  }
  const over = () => within(screen.getByRole('region', { name: /^Post by hand/ }));

  it('opens for what is to be posted now, another when it is chosen', () => {
    open([
      byHand(),
      byHand([], 'later', 'Family hour'),
      departure({ slip: { id: 'x', title: 'By Bimlo', channelId: 'pl' } }),
    ]);
    expect(screen.getByRole('region', { name: 'Post by hand: Come up' })).toBeTruthy();
    fireEvent.click(row('Family hour').getByRole('button', { name: 'post it by hand now' }));
    expect(screen.getByRole('region', { name: 'Post by hand: Family hour' })).toBeTruthy();
  });

  it('copies the texts, and the alt text of a picture', async () => {
    const writeText = vi.fn(async () => undefined);
    clipboard(writeText);
    open([byHand()]);
    press('Copy the caption');
    press('Copy its alt text');
    expect(await screen.findByText('Alt text copied.')).toBeTruthy();
    expect(writeText.mock.calls).toEqual([['Bring a hat.'], ['The dome at dusk']]);
  });

  it('says so where the browser does not let it copy', async () => {
    clipboard(async () => {
      throw new DOMException('no');
    });
    open([byHand()]);
    press('Copy the caption');
    expect(await screen.findByText(/Select the text and copy it by hand/)).toBeTruthy();
  });

  it('saves each picture as it is to be posted, or the original; a video as it is', () => {
    const crop = { x: 0, y: 0, width: 0.5, height: 1 };
    open([
      byHand([
        picture({ id: '1', recipe: { crop, toMime: null, toBytes: null } }),
        picture({ id: '2', alt: '' }),
        picture({ id: '3', mime: 'video/mp4', fileName: 'dome.mp4', alt: '', bytes: 3_100_000 }),
      ]),
    ]);
    const original = `/api/media/${'a'.repeat(64)}?save`;
    expect(
      over()
        .getAllByRole('link')
        .map((link) => [link.textContent, link.getAttribute('href')]),
    ).toEqual([
      ['Save the picture, cropped', '/api/posts/hand/leaving/0'],
      ['The original (11 kB)', original],
      ['Save the picture', '/api/posts/hand/leaving/1'],
      ['The original (11 kB)', original],
      ['Save the video (3.1 MB)', original],
      ['All of it as a ZIP', '/api/take-away?post=hand'],
    ]);
    expect(over().getAllByRole('button', { name: 'Copy its alt text' })).toHaveLength(1);
  });

  it('is confirmed with the address once it is up', async () => {
    open([byHand()]);
    const out = over().getByRole('button', { name: 'Mark as published' });
    expect(out).toHaveProperty('disabled', true);
    const address = over().getByLabelText('Its address, once it is published');
    expect(address).toHaveProperty('disabled', false);
    fireEvent.change(address, {
      target: { value: 'https://homestoop.example/1' },
    });
    fireEvent.click(out);
    expect(await screen.findByText('“Come up” is published.')).toBeTruthy();
    expect(server.calls[0]).toMatchObject({
      path: '/api/posts/hand/deeds',
      body: { deed: 'declareOut', version: 3, address: 'https://homestoop.example/1' },
    });
    expect(router.refresh).toHaveBeenCalled();
  });

  it('is confirmed without an address, and as of when it went out', async () => {
    open([byHand()]);
    fireEvent.click(over().getByLabelText(/^It has none/));
    expect(over().getByLabelText('Its address, once it is published')).toHaveProperty('disabled', true);
    fireEvent.click(over().getByRole('button', { name: 'It went out earlier…' }));
    fireEvent.change(over().getByLabelText('Time'), { target: { value: '9.15' } });
    fireEvent.click(over().getByRole('button', { name: 'Mark as published' }));
    expect(await screen.findByText('“Come up” is published.')).toBeTruthy();
    expect(server.calls[0]).toMatchObject({
      body: { deed: 'declareOut', address: '', date: TODAY, time: '09:15' },
    });
  });

  it.each([
    ['moved', 'Move…', 'Time', '16:00', 'Move it', { kind: 'place', date: TODAY, time: '16:00' }],
    ['skipped', 'Skip it…', 'Why it is skipped', 'Rain', 'Skip it', { kind: 'setAside', reason: 'Rain' }],
  ])('is %s otherwise, and that can be undone', async (_name, open_, label, value, deed, change) => {
    const outcome = { changeId: 'x', label: 'Done', postIds: ['hand'], refused: [], notes: [] };
    server.answer = () => ({ value: { outcome } });
    open([byHand()]);
    fireEvent.click(over().getByRole('button', { name: open_ }));
    fireEvent.change(over().getByLabelText(label), { target: { value } });
    fireEvent.click(over().getByRole('button', { name: deed }));
    expect(await screen.findByRole('button', { name: 'Undo' })).toBeTruthy();
    expect(server.calls[0]).toMatchObject({
      path: '/api/calendar/changes',
      body: { posts: [{ id: 'hand', version: 3 }], change },
    });
  });

  it('waits for a time that can be read', () => {
    open([byHand()]);
    fireEvent.click(over().getByLabelText(/^It has none/));
    fireEvent.click(over().getByRole('button', { name: 'It went out earlier…' }));
    fireEvent.change(over().getByLabelText('Time'), { target: { value: 'noonish' } });
    expect(over().getByRole('button', { name: 'Mark as published' })).toHaveProperty('disabled', true);
    fireEvent.click(over().getByRole('button', { name: 'It went out just now' }));
    expect(over().getByRole('button', { name: 'Mark as published' })).toHaveProperty('disabled', false);
  });
});
