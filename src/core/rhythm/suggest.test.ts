import { describe, expect, it } from 'vitest';
import { readRhythm } from './entry';
import { MOST_A_WEEK, suggestRhythm } from './suggest';

const daysOf = (aWeek: number, place = 0) =>
  suggestRhythm(aWeek, place).map(({ recurrence }) => (recurrence.kind === 'weekly' ? recurrence.weekday : 0));

describe('a suggested rhythm', () => {
  it('lays its posts as far apart as a week lets them', () => {
    expect(daysOf(0)).toEqual([]);
    expect(daysOf(1)).toHaveLength(1);
    const three = daysOf(3);
    const gaps = three.map((day, at) => (three[(at + 1) % 3]! - day + 7) % 7);
    expect(Math.max(...gaps) - Math.min(...gaps)).toBeLessThanOrEqual(1);
    expect(daysOf(7)).toEqual([1, 2, 3, 4, 5, 6, 7]);
    expect(daysOf(MOST_A_WEEK)).toHaveLength(14);
  });

  it('is a rhythm for any number and channel, and differs from one channel to the next', () => {
    for (let aWeek = 0; aWeek <= MOST_A_WEEK; aWeek++)
      for (let place = 0; place < 20; place++) {
        const entries = suggestRhythm(aWeek, place);
        expect(entries).toHaveLength(aWeek);
        expect(readRhythm(entries.map((entry, at) => ({ ...entry, id: `${at}` }))).ok).toBe(true);
      }
    expect(suggestRhythm(3, 0)).not.toEqual(suggestRhythm(3, 1));
  });

  it.each([
    [-1, 0],
    [MOST_A_WEEK + 1, 0],
    [2.5, 0],
    [3, -1],
  ])('is none of %s a week at place %s', (aWeek, place) =>
    expect(() => suggestRhythm(aWeek, place)).toThrow(RangeError),
  );

  it('comes in the order of the week, the day’s first post first', () => {
    for (let place = 0; place < 9; place++)
      for (const aWeek of [3, 5, 7, 10, 14]) {
        const said = suggestRhythm(aWeek, place).map(({ recurrence, time }) =>
          recurrence.kind === 'weekly' ? `${recurrence.weekday} ${time}` : '',
        );
        expect(said).toEqual([...said].sort());
      }
  });

  it('asks for nothing beyond days and times', () =>
    expect(suggestRhythm(1, 0)).toEqual([
      {
        recurrence: { kind: 'weekly', weekday: 2, every: 1 },
        time: '10:00',
        format: null,
        theme: '',
        pillarId: null,
        from: null,
        to: null,
      },
    ]));
});
