import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays, weekdayOf } from '../time/days';
import type { Recurrence, RhythmEntry } from './entry';
import { fallsOn, openingsBetween } from './openings';

const entry = (more: Partial<RhythmEntry> = {}): RhythmEntry => ({
  id: 'e',
  recurrence: { kind: 'weekly', weekday: 2, every: 1 },
  time: '18:00',
  format: null,
  theme: '',
  pillarId: null,
  from: null,
  to: null,
  ...more,
});
const days = (recurrence: Recurrence, from: string | null, span: [string, string]) => {
  const found: string[] = [];
  for (let date = span[0]; date <= span[1]; date = addDays(date, 1))
    if (fallsOn(recurrence, date, from)) found.push(date);
  return found;
};

describe('when an entry comes round', () => {
  it.each<[string, Recurrence, string | null, string[]]>([
    ['weekly', { kind: 'weekly', weekday: 2, every: 1 }, null, ['11-03', '11-10', '11-17', '11-24']],
    [
      'every three weeks, from no day on',
      { kind: 'weekly', weekday: 2, every: 3 },
      null,
      ['11-03', '11-10', '11-17', '11-24'],
    ],
    ['every three weeks', { kind: 'weekly', weekday: 2, every: 3 }, '2026-11-05', ['11-03', '11-24']],
    ['the first Monday', { kind: 'monthlyWeekday', weekday: 1, nth: 1 }, null, ['11-02']],
    ['the fourth Thursday', { kind: 'monthlyWeekday', weekday: 4, nth: 4 }, null, ['11-26']],
    ['the last Monday', { kind: 'monthlyWeekday', weekday: 1, nth: -1 }, null, ['11-30']],
    ['day 15', { kind: 'monthlyDate', day: 15 }, null, ['11-15']],
    ['day 31, which November lacks', { kind: 'monthlyDate', day: 31 }, null, []],
    ['the last day', { kind: 'monthlyDate', day: -1 }, null, ['11-30']],
  ])('%s', (_name, recurrence, from, expected) =>
    expect(days(recurrence, from, ['2026-11-01', '2026-11-30'])).toEqual(expected.map((day) => `2026-${day}`)),
  );

  it('every n weeks has n weeks between, whatever the first day', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 7 }),
        fc.integer({ min: 2, max: 8 }),
        fc.nat(300),
        (weekday, every, start) => {
          const from = addDays('2026-01-01', start);
          const found = days({ kind: 'weekly', weekday, every }, from, [from, addDays(from, every * 21 + 7)]);
          expect(found.length).toBeGreaterThan(1);
          expect(found.every((date) => weekdayOf(date) === weekday)).toBe(true);
          found.slice(1).forEach((date, index) => expect(date).toBe(addDays(found[index]!, every * 7)));
        },
      ),
    );
  });
});

describe('openings', () => {
  const rhythm = { channelId: 'c', entries: [entry()], pauses: [{ from: '2026-11-09', to: '2026-11-12' }] };
  it('leave pauses and what lies outside the entry’s days out', () => {
    const found = openingsBetween(rhythm, '2026-11-01', '2026-11-30', 'Europe/Lisbon').map(({ date }) => date);
    expect(found).toEqual(['2026-11-03', '2026-11-17', '2026-11-24']);
    const bounded = { ...rhythm, entries: [entry({ from: '2026-11-04', to: '2026-11-17' })] };
    expect(openingsBetween(bounded, '2026-11-01', '2026-11-30', 'Europe/Lisbon').map(({ date }) => date)).toEqual([
      '2026-11-17',
    ]);
  });
  it('stand in the order of time and keep their keys', () => {
    const both = { ...rhythm, entries: [entry({ id: 'late' }), entry({ id: 'early', time: '09:00' })] };
    expect(openingsBetween(both, '2026-11-24', '2026-11-24', 'Europe/Lisbon').map(({ key }) => key)).toEqual([
      'early:2026-11-24',
      'late:2026-11-24',
    ]);
  });
  it('at a time the clock shows twice stand where they are', () =>
    expect(
      openingsBetween(
        { ...rhythm, entries: [entry({ recurrence: { kind: 'weekly', weekday: 7, every: 1 }, time: '01:30' })] },
        '2026-10-25',
        '2026-10-25',
        'Europe/Lisbon',
      )[0]!.time,
    ).toBe('01:30'));
});

it('the last of a weekday in a month is one day, among its last seven', () => {
  for (let month = 0; month < 36; month++)
    for (const weekday of [1, 2, 3, 4, 5, 6, 7] as const) {
      const days = Array.from({ length: new Date(Date.UTC(2026, month + 1, 0)).getUTCDate() }, (_, day) =>
        new Date(Date.UTC(2026, month, day + 1)).toISOString().slice(0, 10),
      );
      const falls = days.filter((date) => fallsOn({ kind: 'monthlyWeekday', weekday, nth: -1 }, date, null));
      expect(falls).toHaveLength(1);
      expect(days.slice(-7)).toContain(falls[0]);
      expect(new Date(`${falls[0]}T00:00:00Z`).getUTCDay()).toBe(weekday % 7);
    }
});

it('a pause leaves its first and its last day out, and an entry holds on its first and its last', () => {
  const daily = [1, 2, 3, 4, 5, 6, 7].map((weekday) =>
    entry({
      id: `${weekday}`,
      recurrence: { kind: 'weekly', weekday, every: 1 },
      from: '2026-11-02',
      to: '2026-11-06',
    }),
  );
  const days = (pauses: { from: string; to: string }[]) =>
    openingsBetween({ channelId: 'c', entries: daily, pauses }, '2026-11-01', '2026-11-08', 'Europe/Lisbon').map(
      ({ date }) => date.slice(8),
    );
  expect(days([])).toEqual(['02', '03', '04', '05', '06']);
  expect(days([{ from: '2026-11-03', to: '2026-11-05' }])).toEqual(['02', '06']);
});

it('openings come by day, then time, then key, whatever the order of the entries', () => {
  const entries = [
    entry({ id: 'b', time: '18:00' }),
    entry({ id: 'a', time: '18:00' }),
    entry({ id: 'z', time: '09:00' }),
    entry({ id: 'monday', recurrence: { kind: 'weekly', weekday: 1, every: 1 }, time: '23:00' }),
  ];
  const found = openingsBetween({ channelId: 'c', entries, pauses: [] }, '2026-11-23', '2026-11-24', 'Europe/Lisbon');
  expect(found.map(({ key }) => key.split(':')[0])).toEqual(['monday', 'z', 'a', 'b']);
});

it('a time that the clock jumps over, up to the end of its day, stands at the last minute of it', () => {
  // In Beirut the clock goes from 00:00 to 01:00 on 29 March 2026; in Apia the whole of 30 December 2011 was left out.
  const at = (time: string, date: string, zone: string) =>
    openingsBetween(
      {
        channelId: 'c',
        entries: [entry({ recurrence: { kind: 'monthlyDate', day: Number(date.slice(8)) }, time })],
        pauses: [],
      },
      date,
      date,
      zone,
    )[0]!.time;
  expect(at('00:30', '2026-03-29', 'Asia/Beirut')).toBe('01:00');
  expect(at('12:00', '2011-12-30', 'Pacific/Apia')).toBe('23:59');
});
