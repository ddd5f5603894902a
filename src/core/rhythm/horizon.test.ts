import { describe, expect, it } from 'vitest';
import { addDays } from '../time/days';
import type { Format } from '../rulesheets/types';
import type { RhythmEntry } from './entry';
import { gapsByNeed } from './gaps';
import { horizonOf, reachOf, HORIZON_DAYS, type HorizonPost } from './horizon';
import { nextOpeningDay, openingsBetween } from './openings';

const NOW = { date: '2026-11-23', time: '11:42' };
const ZONE = 'Europe/Lisbon';
const entry = (weekday: number, time: string, more: Partial<RhythmEntry> = {}): RhythmEntry => ({
  id: `${weekday}${time}`,
  recurrence: { kind: 'weekly', weekday, every: 1 },
  time,
  format: null,
  theme: '',
  pillarId: null,
  from: null,
  to: null,
  ...more,
});
const openingsOf = (entries: RhythmEntry[], zone = ZONE, from = NOW.date) =>
  openingsBetween({ channelId: 'c', entries, pauses: [] }, from, addDays(from, HORIZON_DAYS), zone);
const post = (
  date: string,
  time: string | null,
  more: Partial<HorizonPost> & { format?: Format } = {},
): HorizonPost => ({
  id: `${date} ${time}`,
  channelId: 'c',
  date,
  time,
  format: 'text',
  stage: 'ready',
  hasWords: true,
  ...more,
});
const channel = { id: 'c', aimDays: 14 };

describe('the horizon', () => {
  it('is the day before the first opening that is not filled', () =>
    expect(reachOf(openingsOf([entry(2, '18:00'), entry(5, '10:00')]), [post('2026-11-24', '18:00')], NOW)).toEqual({
      kind: 'filledTo',
      to: '2026-11-26',
      days: 4,
      gap: '510:00:2026-11-27',
    }));

  it('a gap tomorrow: filled until today', () =>
    expect(reachOf(openingsOf([entry(2, '18:00')]), [], NOW)).toMatchObject({ to: '2026-11-23', days: 1 }));

  it('a gap later today is a opening today', () =>
    expect(reachOf(openingsOf([entry(1, '18:00')]), [], NOW)).toEqual({
      kind: 'gapToday',
      days: 0,
      gap: '118:00:2026-11-23',
    }));

  it('an opening earlier today counts no more', () =>
    expect(reachOf(openingsOf([entry(1, '09:30')]), [], NOW)).toMatchObject({ to: '2026-11-29', days: 7 }));

  it('but the post that filled it does not fill a later one', () =>
    expect(reachOf(openingsOf([entry(1, '09:30'), entry(1, '18:00')]), [post('2026-11-23', '09:30')], NOW).kind).toBe(
      'gapToday',
    ));

  it('a post without a time fills', () =>
    expect(reachOf(openingsOf([entry(2, '18:00')]), [post('2026-11-24', null)], NOW)).toMatchObject({
      to: '2026-11-30',
    }));

  it('a post of another format does not', () =>
    expect(
      reachOf(openingsOf([entry(2, '18:00', { format: 'carousel' })]), [post('2026-11-24', '18:00')], NOW),
    ).toMatchObject({ to: '2026-11-23' }));

  it('a weekly newsletter with nothing written counts for nothing', () => {
    const openings = openingsOf([entry(7, '09:00')]);
    const unwritten = post('2026-11-29', '09:00', { hasWords: false });
    expect(horizonOf(channel, openings, [unwritten], NOW).planned).toMatchObject({ to: '2026-11-28' });
    expect(horizonOf(channel, openings, [{ ...unwritten, hasWords: true }], NOW).planned).toMatchObject({
      to: '2026-12-05',
    });
  });

  it('an opening at this very minute is still to come, one of yesterday is none, and the 90th day is looked at', () => {
    const on = (date: string, time: string) => ({ key: `${date} ${time}`, channelId: 'c', date, time, format: null });
    expect(reachOf([on(NOW.date, NOW.time)], [], NOW).kind).toBe('gapToday');
    expect(reachOf([on(NOW.date, '11:41'), on('2026-11-22', '18:00')], [], NOW).kind).toBe('noRhythm');
    const [last, beyond] = [addDays(NOW.date, HORIZON_DAYS - 1), addDays(NOW.date, HORIZON_DAYS)];
    expect(reachOf([on(last, '18:00')], [], NOW)).toMatchObject({ days: 89, gap: `${last} 18:00` });
    expect(reachOf([on(beyond, '18:00')], [], NOW)).toEqual({ kind: 'noRhythm' });
  });

  it('takes openings in any order', () => {
    const openings = openingsOf([entry(2, '09:00'), entry(2, '18:00'), entry(4, '09:00')]).reverse();
    expect(reachOf(openings, [], NOW)).toMatchObject({ gap: '209:00:2026-11-24' });
  });

  it('no rhythm, or one whose time is over, has none', () => {
    expect(reachOf([], [post('2026-11-24', '10:00')], NOW)).toEqual({ kind: 'noRhythm' });
    expect(reachOf(openingsOf([entry(2, '18:00', { to: '2026-11-01' })]), [], NOW)).toEqual({ kind: 'noRhythm' });
  });

  it('solid goes by what is ready, scheduled or published, and a ready post stands in for a draft', () => {
    const openings = openingsOf([entry(2, '09:00'), entry(4, '09:00')]);
    const draft = post('2026-11-24', '09:00', { id: 'draft', stage: 'drafting' });
    const ready = post('2026-11-24', '12:00', { id: 'ready' });
    const both = horizonOf(channel, openings, [draft, ready], NOW);
    expect(both.planned).toMatchObject({ to: '2026-11-25' });
    expect(both.solid).toMatchObject({ to: '2026-11-25' });
    expect(horizonOf(channel, openings, [draft], NOW).solid).toMatchObject({ to: '2026-11-23' });
    expect(horizonOf(channel, openings, [{ ...ready, stage: 'setAside' }], NOW).planned).toMatchObject({
      to: '2026-11-23',
    });
  });

  it('never goes further than 90 days', () => {
    const openings = openingsOf([entry(2, '18:00')]);
    const posts = openings.map((opening) => post(opening.date, '18:00'));
    expect(reachOf(openings, posts, NOW)).toEqual({
      kind: 'filledTo',
      to: addDays(NOW.date, 89),
      days: 90,
      gap: null,
    });
  });

  it('on the day the clock jumps over an opening, it stands at the next real time and is filled from there', () => {
    // Clocks in Lisbon go from 01:00 to 02:00 on 29 March 2026.
    const openings = openingsOf([entry(7, '01:30')], ZONE, '2026-03-28');
    expect(openings[0]).toMatchObject({ date: '2026-03-29', time: '02:00' });
    const now = { date: '2026-03-28', time: '12:00' };
    expect(reachOf(openings, [post('2026-03-29', '02:00')], now)).toMatchObject({ to: '2026-04-04' });
  });
});

describe('gaps in order of need', () => {
  const place = (key: string, channelId: string, date: string, time = '18:00') => ({
    key,
    channelId,
    date,
    time,
    format: null,
  });
  const aims: Record<string, number> = { often: 7, seldom: 28 };
  const order = (places: ReturnType<typeof place>[], posts: HorizonPost[] = []) =>
    gapsByNeed(places, posts, (id) => aims[id]!, NOW).map(({ key }) => key);
  it('weighs how soon it comes against the aim', () =>
    expect(
      order([
        place('letter', 'seldom', '2026-11-26'),
        place('soon', 'often', '2026-11-24'),
        place('later', 'often', '2026-12-01'),
        place('today', 'seldom', '2026-11-23'),
      ]),
    ).toEqual(['today', 'letter', 'soon', 'later']));
  it('leaves out what is filled, what has passed and what is far', () =>
    expect(
      order(
        [
          place('filled', 'often', '2026-11-24'),
          place('passed', 'often', '2026-11-23', '09:00'),
          place('far', 'often', '2026-12-07'),
          place('last', 'often', '2026-12-06'),
        ],
        [post('2026-11-24', '18:00', { channelId: 'often' })],
      ),
    ).toEqual(['last']));
});

it('a rhythm whose next opening lies further on says until when there is none', () => {
  expect(reachOf([], [], NOW, '2027-03-04')).toEqual({ kind: 'noneUntil', date: '2027-03-04' });
  expect(reachOf([], [], NOW)).toEqual({ kind: 'noRhythm' });
  const rhythm = { channelId: 'c', entries: [entry(4, '09:00', { from: '2027-03-04' })], pauses: [] };
  expect(nextOpeningDay(rhythm, addDays(NOW.date, HORIZON_DAYS - 1), ZONE)).toBe('2027-03-04');
  expect(nextOpeningDay({ ...rhythm, entries: [] }, NOW.date, ZONE)).toBeNull();
  expect(nextOpeningDay({ ...rhythm, pauses: [{ from: '2027-03-01', to: '2027-03-31' }] }, NOW.date, ZONE)).toBe(
    '2027-04-01',
  );
});
