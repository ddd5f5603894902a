import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays } from '../time/days';
import { followRule, numbersByDay, roundsFromNear } from './follow';
import { readRepeat, roundTitle, type RepeatSaid } from './repeat';
import { nextRounds } from './rounds';
import { ruleWords, type RepeatRule } from './rule';

type Repeated = Parameters<typeof nextRounds>[0];

const FRIDAYS = { kind: 'weekly', weekday: 5, every: 1 } as const;
const repeat = (rule: RepeatRule, more: Partial<Repeated> = {}): Repeated => ({
  ...{ rule, from: '2026-11-01', to: null, daysBefore: 0 },
  ...more,
});
const daysAfter = (of: Repeated, day: string, count: number, known?: string[]) =>
  nextRounds(of, { round: null, day }, count, new Set(known)).map((one) => one.day);

describe('the next rounds', () => {
  it('lie after the day asked for, as many as asked for', () => {
    const series = repeat(FRIDAYS);
    expect(daysAfter(series, '2026-11-26', 3)).toEqual(['2026-11-27', '2026-12-04', '2026-12-11']);
    expect(daysAfter(series, '2026-11-27', 1)).toEqual(['2026-12-04']);
    expect(daysAfter(series, '2026-11-27', 0)).toEqual([]);
  });

  it('lie after the last round as well', () => {
    const [next] = nextRounds(repeat(FRIDAYS), { round: '2026-12-18', day: '2026-11-26' }, 1);
    expect(next).toEqual({ round: '2026-12-25', day: '2026-12-25' });
  });

  it('begin with the repeat and end with it, both days included', () => {
    const series = repeat(FRIDAYS, { from: '2026-12-04', to: '2026-12-18' });
    expect(daysAfter(series, '2026-11-01', 9)).toEqual(['2026-12-04', '2026-12-11', '2026-12-18']);
    expect(daysAfter(series, '2026-12-03', 1)).toEqual(['2026-12-04']);
    expect(daysAfter(series, '2026-12-18', 9)).toEqual([]);
  });

  it('are as many as are kept ahead, of one that comes every two years too, and none of one that never comes', () => {
    const seldom = daysAfter(repeat({ kind: 'weekly', weekday: 5, every: 104 }), '2026-11-26', 26);
    expect([seldom.length, seldom[0]]).toEqual([26, '2028-10-27']);
    expect(daysAfter(repeat({ kind: 'monthlyDate', day: 40 }), '2026-11-26', 1)).toEqual([]);
    expect(daysAfter(repeat({ kind: 'monthlyDate', day: 31 }), '2026-11-26', 26)).toHaveLength(26);
  });

  it('of a year are fixed, by rule, or known', () => {
    expect(daysAfter(repeat({ kind: 'yearlyDate', month: 12, day: 13 }), '2026-12-13', 2)).toEqual([
      '2027-12-13',
      '2028-12-13',
    ]);
    expect(daysAfter(repeat({ kind: 'yearlyWeekday', month: 11, weekday: 5, nth: -1 }), '2026-11-01', 3)).toEqual([
      ...['2026-11-27', '2027-11-26', '2028-11-24'],
    ]);
    const known = repeat({ kind: 'knownDate', title: 'Star night' });
    expect(daysAfter(known, '2026-11-26', 3, ['2026-11-20', '2027-04-02', '2028-04-21'])).toEqual([
      ...['2027-04-02', '2028-04-21'],
    ]);
  });

  it('on 29 February are the 28th in years without it', () => {
    const leap = repeat({ kind: 'yearlyDate', month: 2, day: 29 });
    expect(daysAfter(leap, '2026-11-26', 3)).toEqual(['2027-02-28', '2028-02-29', '2029-02-28']);
    expect(ruleWords(leap.rule)).toBe('every year on 29 February (the 28th in years without it)');
  });

  it('have their posts before their day, and none once that is over', () => {
    const season = repeat({ kind: 'yearlyDate', month: 12, day: 13 }, { daysBefore: 5 });
    expect(nextRounds(season, { round: null, day: '2026-12-07' }, 1)).toEqual([
      { round: '2026-12-13', day: '2026-12-08' },
    ]);
    // The season’s day is still to come, but the day of its post is not.
    expect(daysAfter(season, '2026-12-08', 1)).toEqual(['2027-12-08']);
  });
});

describe('what is said of a repeat', () => {
  const SAID: RepeatSaid = {
    ...{ kind: 'series', name: 'Friday question', format: 'text', rule: FRIDAYS, time: '10:00', from: '2026-11-23' },
    ...{ to: null, times: null, ahead: 4, daysBefore: 0, workDays: null },
  };
  const SEASON: RepeatSaid = {
    ...SAID,
    ...{ kind: 'seasonal', rule: { kind: 'yearlyDate', month: 12, day: 13 }, ahead: 1, workDays: 45 },
  };
  const fieldOf = (said: RepeatSaid) => {
    const read = readRepeat(said);
    return read.ok ? 'fine' : read.refusal.field;
  };

  it.each<[string, string, RepeatSaid]>([
    ['a series', 'fine', SAID],
    ['a season', 'fine', SEASON],
    ['every 104 weeks', 'fine', { ...SAID, kind: 'evergreen', rule: { ...FRIDAYS, every: 104 } }],
    ['every 105 weeks', 'rule', { ...SAID, rule: { ...FRIDAYS, every: 105 } }],
    ['a rule that is none', 'rule', { ...SAID, rule: { kind: 'hourly' } as never }],
    ['a series on a day of the year', 'rule', { ...SAID, rule: SEASON.rule }],
    ['a season every week', 'rule', { ...SEASON, rule: FRIDAYS }],
    ['29 February', 'fine', { ...SEASON, rule: { kind: 'yearlyDate', month: 2, day: 29 } }],
    ['30 February', 'rule', { ...SEASON, rule: { kind: 'yearlyDate', month: 2, day: 30 } }],
    ['a fifth Friday', 'rule', { ...SEASON, rule: { kind: 'yearlyWeekday', month: 1, weekday: 5, nth: 5 as 4 } }],
    ['a date without a name', 'rule', { ...SEASON, rule: { kind: 'knownDate', title: ' ' } }],
    ['10,000 ahead', 'ahead', { ...SAID, ahead: 10_000 }],
    ['ten years ahead', 'ahead', { ...SEASON, ahead: 10 }],
    ['10,000 times', 'times', { ...SAID, times: 10_000 }],
    ['an end before its beginning', 'to', { ...SAID, to: '2026-11-22' }],
    ['a time that is none', 'time', { ...SAID, time: '24:00' }],
    ['after the season’s day', 'daysBefore', { ...SEASON, daysBefore: -1 }],
    ['a series before its day', 'daysBefore', { ...SAID, daysBefore: 3 }],
    ['work that begins the day before', 'workDays', { ...SEASON, workDays: 1 }],
    ['a season without work', 'workDays', { ...SEASON, workDays: null }],
    ['a series with work of a season', 'workDays', { ...SAID, workDays: 45 }],
  ])('%s: %s', (_name, expected, said) => expect(fieldOf(said)).toBe(expected));

  it('a post of a series is called by its number, any other by its name', () => {
    expect(roundTitle(SAID, 33)).toBe('Friday question 33');
    expect(roundTitle({ kind: 'seasonal', name: 'Meteors' }, 2)).toBe('Meteors');
  });
});

describe('posts that follow a changed rule', () => {
  const rounds = ['2026-11-30', '2026-12-07', '2026-12-14', '2026-12-21'].map((day) => ({ round: day, day }));

  it('take each round in turn, and none on which another stands', () => {
    const posts = [3, 1].map((number) => ({ id: `p${number}`, number, date: null }));
    const { days, lastRound } = followRule(posts, rounds, new Set(['2026-12-07']));
    expect([...days]).toEqual([
      ['p1', '2026-11-30'],
      ['p3', '2026-12-14'],
    ]);
    expect(lastRound).toBe('2026-12-14');
  });

  it('go on near where the first of them stood', () => {
    expect(roundsFromNear(rounds, '2026-12-08').map(({ day }) => day)).toEqual([
      '2026-12-07',
      '2026-12-14',
      '2026-12-21',
    ]);
    expect(roundsFromNear(rounds, '2026-12-10')[0]!.day).toBe('2026-12-07');
    expect(roundsFromNear(rounds, '2026-11-02')).toEqual(rounds);
    expect(roundsFromNear([], '2026-11-02')).toEqual([]);
  });

  it('go to the tray where no round is left', () => {
    const { days } = followRule([{ id: 'p', number: 1, date: '2026-12-01' }], [], new Set());
    expect(days.get('p')).toBeNull();
  });

  it('leave no round before the last without a post, whatever stands there', () => {
    const all = Array.from({ length: 40 }, (_, at) => addDays('2026-11-30', 7 * at)).map((day) => ({
      round: day,
      day,
    }));
    const count = fc.integer({ min: 0, max: 12 });
    const on = fc.uniqueArray(fc.integer({ min: 0, max: 20 }), { maxLength: 8 });
    fc.assert(
      fc.property(count, on, (many, places) => {
        const taken = new Set(places.map((at) => all[at]!.day));
        const posts = Array.from({ length: many }, (_, number) => ({ id: `p${number}`, number, date: null }));
        const { days, lastRound } = followRule(posts, all, taken);
        const filled = new Set([...days.values(), ...taken]);
        expect(new Set(days.values()).size).toBe(many);
        for (const { round, day } of all) if (lastRound !== null && round <= lastRound) expect(filled).toContain(day);
      }),
    );
  });
});

it('numbers rise with the days; published posts keep theirs, and no number is lost or doubled', () => {
  const post = fc.record({
    date: fc.option(fc.integer({ min: 10, max: 28 }).map((day) => `2026-12-${day}`)),
    isPublished: fc.boolean(),
  });
  fc.assert(
    fc.property(fc.array(post, { maxLength: 12 }), fc.integer({ min: 1, max: 40 }), (drawn, first) => {
      const posts = drawn.map((one, at) => ({ ...one, id: `p${at}`, number: first + at, time: null }));
      const changed = numbersByDay(posts);
      const now = posts.map((one) => ({ ...one, number: changed.get(one.id) ?? one.number }));
      expect(now.map(({ number }) => number).sort((a, b) => a - b)).toEqual(posts.map(({ number }) => number));
      for (const one of now) if (one.isPublished) expect(changed.has(one.id)).toBe(false);
      const open = now.filter(({ isPublished }) => !isPublished);
      for (const one of open)
        for (const other of open)
          if ((one.date ?? '9') < (other.date ?? '9')) expect(one.number).toBeLessThan(other.number);
    }),
  );
});
