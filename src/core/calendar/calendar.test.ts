import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { SHIPPED_RULE_SHEETS } from '../rulesheets/shipped';
import { addDays, weekdayOf } from '../time/plan';
import { whyNoDrop } from './drop';
import { monthWeeks, startOfWeek } from './month';
import { addMonths } from './months';
import { byTimeOfDay, groupByDay } from './order';
import { slipOf, type SlipSource } from './slip';

describe('the weeks of a month', () => {
  it('from Monday: November 2026 needs six', () => {
    const weeks = monthWeeks('2026-11-15', 1);
    expect([weeks.length, weeks[0]![0]!.date, weeks.at(-1)![6]!.date]).toEqual([6, '2026-10-26', '2026-12-06']);
  });
  it('from Sunday: November 2026 begins on one', () => {
    const weeks = monthWeeks('2026-11-15', 7);
    expect([weeks.length, weeks[0]![0]!.date, weeks.at(-1)![6]!.date]).toEqual([5, '2026-11-01', '2026-12-05']);
  });
  it('February 2027 is four weeks exactly', () => expect(monthWeeks('2027-02-10', 1)).toHaveLength(4));

  it('for any month and week start: whole weeks in order, every day of the month once, none to spare', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 2400 }), fc.integer({ min: 1, max: 7 }), (index, weekStart) => {
        const month = addMonths('1950-01-01', index);
        const weeks = monthWeeks(month, weekStart);
        const days = weeks.flat();
        const inMonth = days.filter((day) => day.inMonth);
        expect(weeks.every((week) => week.length === 7 && weekdayOf(week[0]!.date) === weekStart)).toBe(true);
        expect(weeks.every((week) => week.some((day) => day.inMonth))).toBe(true);
        expect(days.every((day, at) => at === 0 || day.date === addDays(days[at - 1]!.date, 1))).toBe(true);
        expect(inMonth[0]!.day).toBe(1);
        expect(addDays(inMonth.at(-1)!.date, 1)).toBe(addMonths(month, 1));
      }),
    );
  });

  it('finds the start of a week', () =>
    expect([startOfWeek('2026-11-29', 1), startOfWeek('2026-11-29', 7), startOfWeek('2026-11-29', 6)]).toEqual([
      '2026-11-23',
      '2026-11-29',
      '2026-11-28',
    ]));
  it('turns years', () =>
    expect([addMonths('2026-11-01', 2), addMonths('2026-01-31', -1)]).toEqual(['2027-01-01', '2025-12-01']));
});

describe('the order of a day', () => {
  const post = (id: string, time: string | null, callSign = 'AA') => ({ id, date: '2026-11-23', time, callSign });
  it('is by time, untimed last, then by call sign and id', () =>
    expect(
      [post('1', null), post('2', '10:05', 'PL'), post('3', '10:05', 'GR'), post('4', '09:30')]
        .sort(byTimeOfDay)
        .map(({ id }) => id),
    ).toEqual(['4', '3', '2', '1']));
  it('leaves undated posts out', () =>
    expect([...groupByDay([post('1', null), { ...post('2', null), date: null }]).keys()]).toEqual(['2026-11-23']));
});

describe('a drop', () => {
  const post = { kind: 'post', stage: 'ready', leaving: false, date: null } as const;
  const day = (date: string) => ({ kind: 'day', date }) as const;
  it.each([
    ['an idea on today', { kind: 'idea' } as const, day('2026-11-23'), null],
    ['an idea on yesterday', { kind: 'idea' } as const, day('2026-11-22'), 'that day has passed'],
    ['a post on tomorrow', post, day('2026-11-24'), null],
    [
      'a published post',
      { ...post, stage: 'published' } as const,
      day('2026-11-24'),
      'published posts stay on their day',
    ],
    [
      'a post that is leaving, to the tray',
      { ...post, leaving: true } as const,
      { kind: 'tray' } as const,
      'it is leaving right now',
    ],
    ['a post to the tray', post, { kind: 'tray' } as const, null],
  ])('%s', (_name, dragged, place, expected) => expect(whyNoDrop(dragged, place, '2026-11-23')).toBe(expected));
});

describe('a slip', () => {
  const glassrow = SHIPPED_RULE_SHEETS.find((sheet) => sheet.slug === 'glassrow')!;
  const source: SlipSource = {
    id: '1',
    pieceId: '2',
    channelId: '3',
    format: 'photo',
    title: 'Moon',
    date: null,
    time: null,
    stage: 'drafting',
    ownerId: '4',
    version: 1,
    headline: '',
    caption: 'The Moon',
    hashtags: '',
    link: '',
    pictures: [],
    delivery: null,
  };
  it('says what is missing', () =>
    expect(slipOf(source, { callSign: 'GR', sheet: glassrow }).missing).toBe('no picture'));
  it('says nothing of what is out', () =>
    expect(slipOf({ ...source, stage: 'published' }, { callSign: 'GR', sheet: glassrow }).missing).toBeNull());
  it('shows the first picture', () =>
    expect(
      slipOf(
        { ...source, pictures: [{ sha256: 'ab', mime: 'image/png', bytes: 1 }] },
        { callSign: 'GR', sheet: glassrow },
      ),
    ).toMatchObject({ missing: null, thumb: 'ab' }));
});
