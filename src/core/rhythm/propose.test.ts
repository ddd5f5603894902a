import { describe, expect, it } from 'vitest';
import { addDays } from '../time/days';
import { proposeRhythm, type Practised } from './propose';

const SINCE = '2026-09-28';
const UNTIL = '2026-11-23';
/** One post in each of the eight weeks, `day` days after Monday. */
const weekly = (day: number, times: string[], format: Practised['format'] = 'photo'): Practised[] =>
  times.map((time, week) => ({ date: addDays(SINCE, week * 7 + day), time, format }));

describe('a rhythm proposed from what was done', () => {
  it('finds the weekday and the usual time, to five minutes', () =>
    expect(
      proposeRhythm(weekly(1, ['18:00', '18:03', '17:58', '18:01', '18:30', '18:02', '18:00', '18:04']), SINCE, UNTIL),
    ).toEqual([{ weekday: 2, time: '18:00', format: 'photo', weeks: 8 }]));

  it('keeps two habits of one day apart', () =>
    expect(
      proposeRhythm(
        [...weekly(0, Array<string>(8).fill('09:00')), ...weekly(0, Array<string>(6).fill('16:40'), 'text')],
        SINCE,
        UNTIL,
      ).map(({ time, format, weeks }) => [time, format, weeks]),
    ).toEqual([
      ['09:00', 'photo', 8],
      ['16:40', 'text', 6],
    ]));

  it('leaves out what was done now and then, what has no time, and what lies outside the weeks', () =>
    expect(
      proposeRhythm(
        [
          ...weekly(2, ['10:00', '10:00', '10:00']),
          ...weekly(3, Array<string>(8).fill('10:00')).map((post) => ({ ...post, time: null })),
          ...weekly(4, Array<string>(8).fill('10:00')).map((post) => ({ ...post, date: addDays(post.date, -365) })),
        ],
        SINCE,
        UNTIL,
      ),
    ).toEqual([]));

  it('asks for no format where formats differ', () =>
    expect(
      proposeRhythm(
        [...weekly(5, Array<string>(4).fill('20:30')), ...weekly(5, Array<string>(8).fill('20:30'), 'story').slice(4)],
        SINCE,
        UNTIL,
      ),
    ).toEqual([{ weekday: 6, time: '20:30', format: null, weeks: 8 }]));
});
