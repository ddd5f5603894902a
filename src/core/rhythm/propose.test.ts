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

  it('asks for half of the weeks, each counted once, from the first day looked at to the last', () => {
    const four = weekly(1, Array<string>(4).fill('18:00'));
    expect(proposeRhythm(four, SINCE, UNTIL)).toMatchObject([{ weeks: 4 }]);
    expect(proposeRhythm(four.slice(1), SINCE, UNTIL)).toEqual([]);
    // Two in one week are one; what was done on the day that is not included is none.
    expect(proposeRhythm([...four.slice(1), { ...four[1]!, time: '18:10' }], SINCE, UNTIL)).toEqual([]);
    const mondays = weekly(0, Array<string>(3).fill('18:00'));
    expect(proposeRhythm([...mondays, { ...mondays[0]!, date: UNTIL }], SINCE, UNTIL)).toEqual([]);
  });

  it('its time is the lower middle one, and times 45 minutes apart are one habit, 46 are two', () => {
    const times = (...list: string[]) => proposeRhythm(weekly(1, list), SINCE, UNTIL).map(({ time }) => time);
    expect(times('18:20', '18:00', '18:10', '18:00', '18:20', '18:10', '18:20', '18:00')).toEqual(['18:10']);
    expect(times('10:00', '10:45', '10:00', '10:45')).toEqual(['10:00']);
    expect(times('10:00', '10:46', '10:00', '10:46')).toEqual([]);
  });

  it('asks for the format that at least four of five had, whichever came first', () => {
    const photos = weekly(5, Array<string>(8).fill('20:30'));
    const mixed = (stories: number) =>
      proposeRhythm(
        photos.slice(0, 5).map((post, at) => (at < stories ? { ...post, format: 'story' as const } : post)),
        SINCE,
        UNTIL,
      )[0]!.format;
    expect([mixed(1), mixed(2)]).toEqual(['photo', null]);
  });

  it('come by weekday and time, whatever was done first', () => {
    const found = proposeRhythm(
      [
        ...weekly(4, Array<string>(8).fill('09:00')),
        ...weekly(1, Array<string>(8).fill('17:00')),
        ...weekly(1, Array<string>(8).fill('08:00')),
        ...weekly(2, Array<string>(8).fill('12:00')),
      ],
      SINCE,
      UNTIL,
    );
    expect(found.map(({ weekday, time }) => `${weekday} ${time}`)).toEqual([
      '2 08:00',
      '2 17:00',
      '3 12:00',
      '5 09:00',
    ]);
  });
});
