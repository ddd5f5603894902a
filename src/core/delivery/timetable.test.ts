import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { daysBetween } from '../time/days';
import { dateOf } from '../time/days';
import { daysOfView, sortOf, stagesOfView, stepOfView, TIMETABLE_VIEWS, totalWords } from './timetable';

describe('the days of a timetable', () => {
  it.each([
    ['today', '2026-11-25', 1, '2026-11-25', '2026-11-25'],
    ['days', '2026-11-25', 1, '2026-11-25', '2026-12-02'],
    ['week', '2026-11-25', 1, '2026-11-23', '2026-11-29'],
    ['week', '2026-11-22', 7, '2026-11-22', '2026-11-28'],
    ['ready', '2026-11-29', 1, '2026-11-23', '2026-11-29'],
    ['month', '2028-02-29', 1, '2028-02-01', '2028-02-29'],
    ['month', '2026-12-31', 1, '2026-12-01', '2026-12-31'],
  ] as const)('of %s at %s, week from %i, are %s to %s', (view, at, weekStart, from, to) =>
    expect(daysOfView(view, at, weekStart)).toEqual({ from, to }),
  );

  it('hold the day that is asked for, and are stepped through without a gap', () => {
    const asked = fc.record({
      view: fc.constantFrom(...TIMETABLE_VIEWS),
      at: fc.integer({ min: 0, max: 60_000 }).map(dateOf),
      weekStart: fc.integer({ min: 1, max: 7 }),
    });
    fc.assert(
      fc.property(asked, ({ view, at, weekStart }) => {
        const { from, to } = daysOfView(view, at, weekStart);
        expect(from <= at && at <= to).toBe(true);
        const next = daysOfView(view, stepOfView(view, at, weekStart, 1), weekStart);
        expect(daysBetween(to, next.from)).toBe(1);
        const before = daysOfView(view, stepOfView(view, at, weekStart, -1), weekStart);
        expect(daysBetween(before.to, from)).toBe(1);
      }),
    );
  });

  it('that are ready hold what is ready, scheduled or out', () =>
    expect([stagesOfView('ready'), stagesOfView('week')]).toEqual([['ready', 'scheduled', 'published'], []]));
});

it('a total tells apart what is to be sent, out, in trouble and not scheduled', () => {
  const line = (fitness: Parameters<typeof sortOf>[0], sender: 'bimlo' | 'byHand' = 'bimlo') => ({ fitness, sender });
  expect(
    totalWords([
      line('fit'),
      line('retrying'),
      line('handOver', 'byHand'),
      line('out', 'byHand'),
      line('held'),
      line('unknown'),
      line('notFit'),
    ]),
  ).toBe('7 posts: 3 to send (1 by hand), 1 published, 2 in trouble, 1 not scheduled');
});
