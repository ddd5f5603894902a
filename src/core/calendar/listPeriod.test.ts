import { expect, it } from 'vitest';
import { LIST_PERIODS, monthsTurned, spanOfPeriod } from './listPeriod';
import { addMonths } from './months';
import { addDays } from '../time/days';

it.each([
  ['around', '2026-10-24', '2027-01-25'],
  ['month', '2026-11-01', '2026-11-30'],
  ['quarter', '2026-11-01', '2027-01-31'],
  ['year', '2026-01-01', '2026-12-31'],
] as const)('the list of %s shows %s to %s', (period, from, to) =>
  expect(spanOfPeriod(period, '2026-11-24')).toEqual({ from, to }),
);

it('turning leaves no day out', () => {
  for (const period of LIST_PERIODS.filter((one) => one !== 'around')) {
    const { to } = spanOfPeriod(period, '2026-11-24');
    expect(spanOfPeriod(period, addMonths('2026-11-24', monthsTurned(period))).from).toBe(addDays(to, 1));
  }
});
