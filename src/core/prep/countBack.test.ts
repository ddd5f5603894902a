import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays, dayNumber, daysBetween, weekdayOf } from '../time/days';
import { countBack, orderBreakers, squeezeWords, stepState, type CountedStep } from './countBack';
import { workedOn, type WorkCalendar } from './workdays';

const WEEK: WorkCalendar = { weekdays: [1, 2, 3, 4, 5], daysOff: [] };
const step = (lead: number, more: Partial<CountedStep> = {}): CountedStep => ({
  lead,
  leadIn: 'working',
  pinned: null,
  doneOn: null,
  ...more,
});
const days = (date: string, steps: CountedStep[], calendar = WEEK) => {
  const isWorked = workedOn(calendar);
  return countBack(date, steps, () => isWorked);
};

describe('counting back', () => {
  it('counts working days, so a weekend lies between Monday and Friday', () => {
    expect(days('2026-11-30', [step(3), step(1), step(0), step(-1)])).toEqual([
      '2026-11-25',
      '2026-11-27',
      '2026-11-30',
      '2026-12-01',
    ]);
  });
  it('counts calendar days where a lead says so', () => {
    expect(days('2026-11-30', [step(2, { leadIn: 'calendar' }), step(-6, { leadIn: 'calendar' })])).toEqual([
      '2026-11-28',
      '2026-12-06',
    ]);
  });
  it('takes the working day before a post that leaves on a Sunday', () => {
    expect(days('2026-11-29', [step(1), step(0), step(-1)])).toEqual(['2026-11-27', '2026-11-27', '2026-11-30']);
  });
  it('goes round days off', () => {
    const calendar = { ...WEEK, daysOff: [{ from: '2026-11-26', to: '2026-11-27' }] };
    expect(days('2026-11-30', [step(1)], calendar)).toEqual(['2026-11-25']);
  });
  it('pulls a step earlier that would fall after the next', () => {
    expect(days('2026-11-27', [step(1), step(3), step(2)])).toEqual(['2026-11-24', '2026-11-24', '2026-11-25']);
  });
  it('pulls a step of working days to a working day, when the next stands on a Sunday', () => {
    expect(days('2026-12-02', [step(0), step(3, { leadIn: 'calendar' })])).toEqual(['2026-11-27', '2026-11-29']);
  });
  it('leaves a pinned step where it is, and names one that breaks the order', () => {
    const steps = [step(4), step(3, { pinned: '2026-11-27' }), step(2, { pinned: '2026-11-23' }), step(0)];
    const counted = days('2026-11-27', steps);
    expect(counted).toEqual(['2026-11-23', '2026-11-27', '2026-11-23', '2026-11-27']);
    const dated = steps.map((one, index) => ({ ...one, day: counted[index]! }));
    expect(orderBreakers(dated)).toEqual([dated[1]]);
  });
  it('lets what is done stay, and hold nobody back', () => {
    expect(days('2026-12-04', [step(3), step(2, { doneOn: '2026-11-02' }), step(1)])).toEqual([
      '2026-12-01',
      '2026-11-02',
      '2026-12-03',
    ]);
  });
  it('counts calendar days for somebody who never works', () => {
    expect(days('2026-11-30', [step(3), step(0)], { weekdays: [], daysOff: [] })).toEqual(['2026-11-27', '2026-11-30']);
  });
});

describe('counting back, for any steps', () => {
  const dates = fc.integer({ min: 0, max: 1_500 }).map((offset) => addDays('2026-01-01', offset));
  const steps = fc.array(
    fc.record({
      lead: fc.integer({ min: -20, max: 60 }),
      leadIn: fc.constantFrom('working' as const, 'calendar' as const),
      pinned: fc.option(dates, { freq: 5 }),
      doneOn: fc.option(dates, { freq: 6 }),
    }),
    { maxLength: 12 },
  );
  const calendars = fc.record({
    weekdays: fc.uniqueArray(fc.integer({ min: 1, max: 7 }), { minLength: 1, maxLength: 7 }),
    daysOff: fc.array(
      fc.tuple(dates, fc.integer({ min: 0, max: 20 })).map(([from, length]) => ({ from, to: addDays(from, length) })),
      { maxLength: 3 },
    ),
  });
  const open = (counted: string[], all: CountedStep[]) =>
    counted.filter((_one, index) => all[index]!.doneOn === null && all[index]!.pinned === null);

  it('never breaks the order of what is neither pinned nor done', () => {
    fc.assert(
      fc.property(dates, steps, calendars, (date, all, calendar) => {
        const isWorked = workedOn(calendar);
        const own = open(
          countBack(date, all, () => isWorked),
          all,
        );
        expect(own).toEqual([...own].sort());
      }),
      { numRuns: 1_000 },
    );
  });
  it('never moves a pin, and no working step falls on a day off', () => {
    fc.assert(
      fc.property(dates, steps, calendars, (date, all, calendar) => {
        const isWorked = workedOn(calendar);
        countBack(date, all, () => isWorked).forEach((day, index) => {
          const { pinned, doneOn, leadIn } = all[index]!;
          if (doneOn !== null) expect(day).toBe(doneOn);
          else if (pinned !== null) expect(day).toBe(pinned);
          else if (leadIn === 'working') expect(isWorked(dayNumber(day))).toBe(true);
        });
      }),
      { numRuns: 1_000 },
    );
  });
  it('never falls later than the lead says, and moves with the post', () => {
    fc.assert(
      fc.property(dates, steps, calendars, fc.integer({ min: 1, max: 40 }), (date, all, calendar, later) => {
        const isWorked = workedOn(calendar);
        const before = countBack(date, all, () => isWorked);
        const after = countBack(addDays(date, later), all, () => isWorked);
        all.forEach(({ pinned, doneOn, lead, leadIn }, index) => {
          if (pinned !== null || doneOn !== null) return;
          expect(after[index]! >= before[index]!).toBe(true);
          if (leadIn === 'calendar') expect(daysBetween(before[index]!, date)).toBeGreaterThanOrEqual(lead);
        });
      }),
      { numRuns: 1_000 },
    );
  });
  it('agrees with walking day by day', () => {
    fc.assert(
      fc.property(dates, fc.integer({ min: 1, max: 40 }), calendars, (date, lead, calendar) => {
        const off = (day: string) => calendar.daysOff.some(({ from, to }) => day >= from && day <= to);
        let day = date;
        for (let left = lead; left > 0;) {
          day = addDays(day, -1);
          if (calendar.weekdays.includes(weekdayOf(day)) && !off(day)) left--;
        }
        expect(days(date, [step(lead)], calendar)).toEqual([day]);
      }),
    );
  });
});

describe('how a step stands', () => {
  const at = (more: object) => ({ day: '2026-11-20', doneOn: null, pinned: null, plannedOn: '2026-11-10', ...more });
  it.each([
    ['done', { doneOn: '2026-11-19' }],
    ['undated', { day: null }],
    ['late', {}],
    ['squeezed', { plannedOn: '2026-11-21' }],
    ['late', { plannedOn: '2026-11-21', pinned: '2026-11-20' }],
    ['today', { day: '2026-11-23' }],
    ['ahead', { day: '2026-11-24' }],
  ])('is %s', (state, more) => expect(stepState(at(more), '2026-11-23')).toBe(state));

  it('is summed in words', () => {
    expect(squeezeWords(['squeezed', 'late', 'squeezed', 'done'])).toBe('2 with too little time, 1 late');
    expect(squeezeWords(['ahead', 'done'])).toBe('');
  });
});
