import { describe, expect, it } from 'vitest';
import { nextRounds, roundTitle } from './series';

const friday = { kind: 'weekly', weekday: 5, every: 1 } as const;

describe('the next rounds of a series', () => {
  it('lie after the day asked for, as many as asked for', () => {
    const series = { recurrence: friday, from: '2026-11-01', to: null };
    expect(nextRounds(series, '2026-11-26', 3)).toEqual(['2026-11-27', '2026-12-04', '2026-12-11']);
    expect(nextRounds(series, '2026-11-27', 1)).toEqual(['2026-12-04']);
    expect(nextRounds(series, '2026-11-27', 0)).toEqual([]);
  });

  it('begin with the series and end with it, both days included', () => {
    const series = { recurrence: friday, from: '2026-12-04', to: '2026-12-18' };
    expect(nextRounds(series, '2026-11-01', 9)).toEqual(['2026-12-04', '2026-12-11', '2026-12-18']);
    expect(nextRounds(series, '2026-12-03', 1)).toEqual(['2026-12-04']);
    expect(nextRounds(series, '2026-12-18', 9)).toEqual([]);
  });

  it('are as many as are kept ahead, of one that comes twice a year too, and none of one that never comes', () => {
    const seldom = { kind: 'weekly', weekday: 5, every: 26 } as const;
    const rounds = nextRounds({ recurrence: seldom, from: '2026-11-27', to: null }, '2026-11-26', 26);
    expect([rounds.length, rounds[0], rounds.at(-1)]).toEqual([26, '2026-11-27', '2039-05-13']);
    const never = { kind: 'monthlyDate', day: 40 } as const;
    expect(nextRounds({ recurrence: never, from: '2026-11-27', to: null }, '2026-11-26', 1)).toEqual([]);
  });
});

it('a post of a series is called by its number', () =>
  expect(roundTitle('Friday question', 33)).toBe('Friday question 33'));
