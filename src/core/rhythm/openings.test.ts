import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays, weekdayOf } from '../time/days';
import { askedFor, readRhythm, recurrenceWords, type Recurrence, type RhythmEntry } from './entry';
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

describe('checking a rhythm', () => {
  const codeOf = (...entries: RhythmEntry[]) => {
    const read = readRhythm(entries);
    return read.ok ? 'fine' : read.refusal.code;
  };
  it.each<[string, string, RhythmEntry[]]>([
    ['nothing', 'fine', []],
    ['two times on one day', 'fine', [entry(), entry({ time: '18:01' })]],
    ['twice the same minute', 'sameMinute', [entry(), entry({ id: 'f' })]],
    [
      'the same minute one after the other',
      'fine',
      [entry({ to: '2026-11-30' }), entry({ id: 'f', from: '2026-12-01' })],
    ],
    ['a time that is none', 'badEntry', [entry({ time: '24:00' })]],
    ['a weekday that is none', 'badEntry', [entry({ recurrence: { kind: 'weekly', weekday: 8, every: 1 } })]],
    ['every half week', 'badEntry', [entry({ recurrence: { kind: 'weekly', weekday: 1, every: 0.5 } })]],
    ['every two weeks from nowhere', 'badEntry', [entry({ recurrence: { kind: 'weekly', weekday: 1, every: 2 } })]],
    ['the 32nd', 'badEntry', [entry({ recurrence: { kind: 'monthlyDate', day: 32 } })]],
    ['the fifth Friday', 'badEntry', [entry({ recurrence: { kind: 'monthlyWeekday', weekday: 5, nth: 5 as 4 } })]],
    ['an end before the beginning', 'badEntry', [entry({ from: '2026-12-01', to: '2026-11-01' })]],
    ['a theme of a page', 'badEntry', [entry({ theme: 'x'.repeat(61) })]],
    ['a format nobody knows', 'badEntry', [entry({ format: 'hologram' as 'photo' })]],
    ['too much', 'rhythmTooLong', Array.from({ length: 61 }, () => entry())],
  ])('%s is %s', (_name, expected, entries) => expect(codeOf(...entries)).toBe(expected));

  it('names both entries of the same minute', () => {
    const read = readRhythm([entry(), entry({ time: '09:00' }), entry({ id: 'f' })]);
    expect(read.ok || read.refusal.message).toBe(
      'Entries 1 and 3 both ask for every Tuesday at 18:00. Change or remove one.',
    );
  });

  it('says recurrences as people do', () => {
    expect(recurrenceWords({ kind: 'weekly', weekday: 2, every: 3 })).toBe('Tuesday every 3 weeks');
    expect(recurrenceWords({ kind: 'monthlyWeekday', weekday: 5, nth: -1 })).toBe('the last Friday of the month');
    expect(recurrenceWords({ kind: 'monthlyDate', day: 15 })).toBe('day 15 of the month');
    expect(recurrenceWords({ kind: 'monthlyDate', day: -1 })).toBe('the last day of the month');
    expect(askedFor({ format: 'carousel', theme: 'New object' })).toBe('carousel · New object');
    expect(askedFor({ format: null, theme: '' })).toBe('');
  });
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
