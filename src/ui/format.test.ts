import { describe, expect, it } from 'vitest';
import { clockTime, dayAndTime, fileSize, monthName, shortDate, spokenDate, weekdayName } from './format';

describe('dates and numbers for people', () => {
  it('are the same day whatever the zone of this machine', () => {
    const before = process.env.TZ;
    for (const zone of ['Pacific/Kiritimati', 'Pacific/Pago_Pago']) {
      process.env.TZ = zone;
      expect([
        shortDate('2026-11-26'),
        spokenDate('2026-11-26'),
        monthName('2026-11-01'),
        weekdayName('2026-11-26'),
      ]).toEqual(['Thu 26 Nov', 'Thursday 26 November', 'November 2026', 'Thu']);
    }
    process.env.TZ = before;
  });

  it('show an instant on the wall of the brand', () => {
    expect(clockTime('2026-07-01T13:30:02.000Z', 'Europe/Lisbon')).toBe('14:30');
    expect(clockTime('2026-11-26T14:30:02.000Z', 'Europe/Lisbon', true)).toBe('14:30:02');
    expect(dayAndTime('2026-11-26T23:30:00.000Z', 'Europe/Berlin')).toBe('27 Nov 00:30');
  });

  it('say sizes as people do', () =>
    expect([fileSize(3_140_000), fileSize(420_300), fileSize(12)]).toEqual(['3.1 MB', '420 kB', '1 kB']));
});
