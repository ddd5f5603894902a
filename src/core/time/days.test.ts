import { describe, expect, it } from 'vitest';
import { beginnings } from '../prep/load';
import { LAST_MINUTE, minutesOf, timeOf } from './days';

describe('the time of a minute', () => {
  it('is that minute’s, whichever it is', () => {
    for (let minute = 0; minute <= LAST_MINUTE; minute++) expect(minutesOf(timeOf(minute))).toBe(minute);
    expect([timeOf(0), timeOf(LAST_MINUTE)]).toEqual(['00:00', '23:59']);
  });

  it.each([-1, LAST_MINUTE + 1, 12.5, NaN])('is none of %s', (minutes) =>
    expect(() => timeOf(minutes)).toThrow(RangeError),
  );

  it('of what goes on past midnight is the day’s last', () =>
    expect(beginnings('23:30', [{ minutes: 60 }, { minutes: 5 }])).toEqual(['23:30', '23:59']));
});
