import { describe, expect, it } from 'vitest';
import type { RhythmEntry } from './entry';
import { nextEntry } from './nextEntry';

const entry = (weekday: number, time = '10:00'): RhythmEntry => ({
  id: `${weekday}${time}`,
  recurrence: { kind: 'weekly', weekday, every: 1 },
  ...{ time, format: 'photo', theme: 'Stars', pillarId: null, from: null, to: null },
});
const weekdayOf = (...entries: RhythmEntry[]) => {
  const { recurrence } = nextEntry(entries);
  return recurrence.kind === 'weekly' ? recurrence.weekday : null;
};

describe('a rhythm that goes on', () => {
  it('begins on Monday', () => expect(nextEntry([])).toMatchObject({ time: '09:00', format: null, theme: '' }));
  it('keeps the step between its days, its time and its format, not its theme', () => {
    expect(weekdayOf(entry(1))).toBe(2);
    expect(weekdayOf(entry(1), entry(3))).toBe(5);
    expect(nextEntry([entry(1), entry(3)])).toMatchObject({ time: '10:00', format: 'photo', theme: '' });
  });
  it('goes round the week, past days that ask for that time already', () => {
    expect(weekdayOf(entry(1), entry(3), entry(5))).toBe(7);
    expect(weekdayOf(entry(3), entry(5), entry(7))).toBe(2);
    expect(weekdayOf(entry(2), entry(4), entry(6), entry(1))).toBe(3);
    expect(weekdayOf(...[1, 2, 3, 4, 5, 6, 7].map((day) => entry(day)))).toBe(7);
  });
  it('takes the next free day after one that is taken', () => expect(weekdayOf(entry(3), entry(6), entry(1))).toBe(4));
  it('takes a day that asks for another time', () => expect(weekdayOf(entry(3, '18:00'), entry(1), entry(2))).toBe(3));
  it('counts no entry by the month', () =>
    expect(weekdayOf(entry(4), { ...entry(1), recurrence: { kind: 'monthlyDate', day: 3 }, time: '11:00' })).toBe(5));
});
