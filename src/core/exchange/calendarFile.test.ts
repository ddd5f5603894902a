import { RRuleTemporal } from 'rrule-temporal';
import { describe, expect, it } from 'vitest';
import { readCalendarFile } from './calendarFile';

const SPAN = { from: '2026-01-01', to: '2028-12-31' };
const event = (...lines: string[]) => ['BEGIN:VEVENT', ...lines, 'END:VEVENT'];
const calendar = (...events: string[][]) => ['BEGIN:VCALENDAR', ...events.flat(), 'END:VCALENDAR'].join('\r\n');
const read = (text: string) => {
  const file = readCalendarFile(text, SPAN, 'Europe/Lisbon');
  if (!file.ok) throw new Error(file.refusal.message);
  return file.value;
};
const daysOf = (text: string) => read(text).dates.map(({ from }) => from);

describe('dates that repeat', () => {
  it.each([
    ['29 February, yearly', '20240229', 'FREQ=YEARLY', ['2028-02-29']],
    ['29 February, by its parts', '20240229', 'FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=29', ['2028-02-29']],
    [
      'the 31st, monthly, to summer',
      '20260131',
      'FREQ=MONTHLY;UNTIL=20260630',
      ['2026-01-31', '2026-03-31', '2026-05-31'],
    ],
  ])('are none in years and months without: %s', (_name, start, rule, expected) =>
    expect(daysOf(calendar(event('SUMMARY:x', `DTSTART;VALUE=DATE:${start}`, `RRULE:${rule}`)))).toEqual(expected),
  );

  it.each([
    'FREQ=DAILY;INTERVAL=3;COUNT=40',
    'FREQ=WEEKLY;BYDAY=MO,WE,SU;COUNT=60',
    'FREQ=WEEKLY;INTERVAL=2;BYDAY=TU;COUNT=30',
    'FREQ=MONTHLY;BYDAY=-1FR;COUNT=20',
    'FREQ=MONTHLY;BYMONTHDAY=31;COUNT=9',
    'FREQ=MONTHLY;BYMONTHDAY=-1;COUNT=20',
    'FREQ=YEARLY;BYMONTH=3,10;BYDAY=-1SU;COUNT=6',
    'FREQ=YEARLY;COUNT=3',
  ])('fall where a second reader of rules has them: %s', (rule) => {
    const other = new RRuleTemporal({ rruleString: `DTSTART;TZID=Europe/Lisbon:20260105T100000\nRRULE:${rule}` });
    const expected = other
      .all()
      .map((at) => at.toPlainDate().toString())
      .filter((day) => day <= SPAN.to);
    const text = calendar(event('SUMMARY:x', 'DTSTART;TZID=Europe/Lisbon:20260105T100000', `RRULE:${rule}`));
    // A start that its rule does not name is a date all the same (RFC 5545, 3.8.5.3); the other reader leaves it out.
    expect(daysOf(text).filter((day) => day !== '2026-01-05' || expected.includes(day))).toEqual(expected);
  });
});

describe('single dates of a series', () => {
  const series = event('UID:a', 'SUMMARY:Talk', 'DTSTART;VALUE=DATE:20261201', 'RRULE:FREQ=DAILY;COUNT=3');
  it('are moved', () =>
    expect(
      read(
        calendar(
          series,
          event('UID:a', 'RECURRENCE-ID;VALUE=DATE:20261202', 'SUMMARY:Talk, moved', 'DTSTART;VALUE=DATE:20261220'),
        ),
      ).dates.map(({ from, title }) => [from, title]),
    ).toEqual([
      ['2026-12-01', 'Talk'],
      ['2026-12-03', 'Talk'],
      ['2026-12-20', 'Talk, moved'],
    ]));
  it('and whole events are called off', () =>
    expect(
      daysOf(
        calendar(
          series,
          event('UID:a', 'RECURRENCE-ID;VALUE=DATE:20261202', 'STATUS:CANCELLED', 'DTSTART;VALUE=DATE:20261202'),
          event('UID:b', 'SUMMARY:Fair', 'STATUS:CANCELLED', 'DTSTART;VALUE=DATE:20261205'),
        ),
      ),
    ).toEqual(['2026-12-01', '2026-12-03']));
});

describe('files', () => {
  it('with several calendars give the dates of all', () =>
    expect(
      daysOf(
        [
          calendar(event('SUMMARY:a', 'DTSTART;VALUE=DATE:20261201')),
          calendar(event('SUMMARY:b', 'DTSTART;VALUE=DATE:20261202')),
        ].join('\r\n'),
      ),
    ).toEqual(['2026-12-01', '2026-12-02']));
  it('with a date that no calendar has name it, and give the others', () =>
    expect(
      read(
        calendar(event('SUMMARY:a', 'DTSTART;VALUE=DATE:20260230'), event('SUMMARY:b', 'DTSTART;VALUE=DATE:20261202')),
      ),
    ).toMatchObject({
      dates: [{ title: 'b' }],
      bad: [{ line: 2, reason: '“a”: there is no 2026-02-30' }],
    }));
});
