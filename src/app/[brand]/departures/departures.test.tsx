// @vitest-environment jsdom
import { act, cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { ParcelPicture } from '@/core/delivery/network';
import { testSlip } from '@/core/calendar/testSlip';
import { SHIPPED_RULE_SHEETS } from '@/core/rulesheets/shipped';
import type { Departure } from '@/usecases/delivery/loadDepartures';
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
    handOver: { texts: [{ label: 'Caption', text: 'Bring a hat.' }], pictures },
  });

const open = (departures: Departure[], now = `${TODAY}T13:00:00.000Z`) =>
  renderScreen(<DepartureBoard departures={departures} now={now} today={TODAY} tomorrow="2026-11-24" />, {
    channels: [SHELL.channels[0]!, stoop],
  });
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
    ]);
    expect(over().getAllByRole('button', { name: 'Copy its alt text' })).toHaveLength(1);
  });

  it('is confirmed with the address once it is up', async () => {
    open([byHand()]);
    const out = over().getByRole('button', { name: 'Mark as published' });
    expect(out).toHaveProperty('disabled', true);
    fireEvent.change(over().getByLabelText('Its address, once it is published'), {
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
});
