import { describe, expect, it } from 'vitest';
import { plannedOf } from './PlannedDate';

const SHOWN = { date: '2026-12-03', time: '14:30' };

describe('the date of a post to be made', () => {
  it('is the one that was worked out until it is moved', () => {
    expect(plannedOf(SHOWN, {})).toEqual({ ...SHOWN, isMoved: false });
    expect(plannedOf(SHOWN, { date: '2026-12-03' })).toEqual({ ...SHOWN, isMoved: false });
  });

  it('loses its time with another date, unless one is given', () => {
    expect(plannedOf(SHOWN, { date: '2026-12-05' })).toEqual({ date: '2026-12-05', time: null, isMoved: true });
    expect(plannedOf(SHOWN, { date: '2026-12-05', time: '9:15' })).toMatchObject({ time: '09:15' });
    expect(plannedOf(SHOWN, { time: '18:00' })).toEqual({ date: '2026-12-03', time: '18:00', isMoved: true });
    expect(plannedOf(SHOWN, { time: '' })).toEqual({ date: '2026-12-03', time: null, isMoved: true });
    expect(plannedOf(SHOWN, { date: '', time: '18:00' })).toEqual({ date: null, time: null, isMoved: true });
  });
});
