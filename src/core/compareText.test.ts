import { expect, it } from 'vitest';
import { compareText } from './compareText';

it('orders texts, equal ones by nothing', () => {
  expect([compareText('a', 'b'), compareText('b', 'a'), compareText('a', 'a')]).toEqual([-1, 1, 0]);
  expect(['18:00', '09:30', '10:00'].sort(compareText)).toEqual(['09:30', '10:00', '18:00']);
});
