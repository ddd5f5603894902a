import { describe, expect, it } from 'vitest';
import { askedFor, readRhythm, recurrenceWords, type RhythmEntry } from './entry';

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

describe('checking a rhythm', () => {
  const codeOf = (...entries: RhythmEntry[]) => {
    const read = readRhythm(entries);
    return read.ok ? 'fine' : read.refusal.code;
  };
  it.each<[string, string, RhythmEntry[]]>([
    ['nothing', 'fine', []],
    ['two times on one day', 'fine', [entry(), entry({ time: '18:01' })]],
    ['twice the same minute', 'sameMinute', [entry(), entry({ id: 'f' })]],
    ['an open one and a later one in the same minute', 'sameMinute', [entry(), entry({ id: 'f', from: '2026-12-01' })]],
    ['a later one and an open one in the same minute', 'sameMinute', [entry({ id: 'f', from: '2026-12-01' }), entry()]],
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
    [
      'as much as there may be',
      'fine',
      Array.from({ length: 60 }, (_, minute) => entry({ time: `10:${`${minute}`.padStart(2, '0')}` })),
    ],
    ['a time with something before it', 'badEntry', [entry({ time: '118:00' })]],
    ['a time with something after it', 'badEntry', [entry({ time: '18:000' })]],
    ['a weekday before Monday', 'badEntry', [entry({ recurrence: { kind: 'weekly', weekday: 0, every: 1 } })]],
    ['half a weekday', 'badEntry', [entry({ recurrence: { kind: 'weekly', weekday: 1.5, every: 1 } })]],
    [
      'every two weeks from a day on',
      'fine',
      [entry({ recurrence: { kind: 'weekly', weekday: 1, every: 2 }, from: '2026-11-01' })],
    ],
    [
      'every 27 weeks',
      'badEntry',
      [entry({ recurrence: { kind: 'weekly', weekday: 1, every: 27 }, from: '2026-11-01' })],
    ],
    ['the last day', 'fine', [entry({ recurrence: { kind: 'monthlyDate', day: -1 } })]],
    ['the day before the first', 'badEntry', [entry({ recurrence: { kind: 'monthlyDate', day: 0 } })]],
    [
      'each one of the month',
      'fine',
      ([1, 2, 3, 4, -1] as const).map((nth) => entry({ recurrence: { kind: 'monthlyWeekday', weekday: 5, nth } })),
    ],
    ['a theme of a line', 'fine', [entry({ theme: 'x'.repeat(60) })]],
    ['an end on its first day', 'fine', [entry({ from: '2026-12-01', to: '2026-12-01' })]],
    ['every day but the weekend', 'fine', [entry({ recurrence: { kind: 'daily', except: [6, 7] } })]],
    [
      'every day but on all of them',
      'badEntry',
      [entry({ recurrence: { kind: 'daily', except: [1, 2, 3, 4, 5, 6, 7] } })],
    ],
    ['every day but an eighth', 'badEntry', [entry({ recurrence: { kind: 'daily', except: [8] } })]],
    ['a window', 'fine', [entry({ until: '20:00' })]],
    ['a window that ends as it begins', 'badEntry', [entry({ until: '18:00' })]],
    ['a window until nowhen', 'badEntry', [entry({ until: '24:30' })]],
    ['an end without a beginning', 'fine', [entry({ to: '2026-12-01' })]],
    ['a beginning without an end', 'fine', [entry({ from: '2026-12-01' })]],
    ['the same minute on one day', 'sameMinute', [entry({ to: '2026-11-30' }), entry({ id: 'f', from: '2026-11-30' })]],
    [
      'the same minute on one day, told the other way round',
      'sameMinute',
      [entry({ from: '2026-11-30' }), entry({ id: 'f', to: '2026-11-30' })],
    ],
    ['the same minute, the later first', 'fine', [entry({ from: '2026-12-01' }), entry({ id: 'f', to: '2026-11-30' })]],
    [
      'the same minute in words of another order',
      'sameMinute',
      [entry(), entry({ id: 'f', recurrence: { every: 1, kind: 'weekly', weekday: 2 } })],
    ],
  ])('%s is %s', (_name, expected, entries) => expect(codeOf(...entries)).toBe(expected));

  it('names both entries of the same minute', () => {
    const read = readRhythm([entry(), entry({ time: '09:00' }), entry({ id: 'f' })]);
    expect(read.ok || read.refusal.message).toBe(
      'Entries 1 and 3 both ask for every Tuesday at 18:00. Change or remove one.',
    );
  });

  it('names what is wrong, and where', () => {
    const refusalOf = (...entries: RhythmEntry[]) => {
      const read = readRhythm(entries);
      return read.ok ? null : read.refusal;
    };
    expect(refusalOf(...Array.from({ length: 61 }, () => entry()))).toEqual({
      code: 'rhythmTooLong',
      field: 'entries',
      message: 'A rhythm holds 60 entries, this has 61.',
    });
    expect(refusalOf(entry(), entry({ time: 'noon' }))).toEqual({
      code: 'badEntry',
      field: 'entries[1]',
      message: 'Entry 2: “noon” is not a time. Write it like 14:30.',
    });
    expect(refusalOf(entry(), entry({ id: 'f' }))).toMatchObject({ field: 'entries[1]' });
  });

  it('says recurrences as people do', () => {
    expect(recurrenceWords({ kind: 'weekly', weekday: 2, every: 1 })).toBe('every Tuesday');
    expect(recurrenceWords({ kind: 'weekly', weekday: 2, every: 3 })).toBe('Tuesday every 3 weeks');
    expect(recurrenceWords({ kind: 'monthlyWeekday', weekday: 5, nth: -1 })).toBe('the last Friday of the month');
    expect(recurrenceWords({ kind: 'monthlyDate', day: 15 })).toBe('day 15 of the month');
    expect(recurrenceWords({ kind: 'daily', except: [] })).toBe('every day');
    expect(recurrenceWords({ kind: 'daily', except: [7, 6] })).toBe('every day from Monday to Friday');
    expect(recurrenceWords({ kind: 'daily', except: [1, 3] })).toBe('every day but Monday, Wednesday');
    expect(recurrenceWords({ kind: 'monthlyDate', day: -1 })).toBe('the last day of the month');
    expect(askedFor({ format: 'carousel', theme: 'New object' })).toBe('carousel · New object');
    expect(askedFor({ format: null, theme: '' })).toBe('');
  });
});
