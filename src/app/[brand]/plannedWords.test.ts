import { expect, it } from 'vitest';
import { plannedWords } from './plannedWords';

const slip = (callSign: string, date: string | null, time: string | null = null) => ({ callSign, date, time });

it('names each date that was planned', () => {
  expect(plannedWords('Rings', [slip('GR', '2026-12-08', '18:00'), slip('PL', '2026-12-08', '18:00')])).toBe(
    'Planned “Rings” for Tue 8 Dec 18:00: GR, PL',
  );
  expect(plannedWords('Rings', [slip('GR', '2026-12-08', '18:00'), slip('PL', '2026-12-09')])).toBe(
    'Planned “Rings”: GR Tue 8 Dec 18:00, PL Wed 9 Dec',
  );
  expect(plannedWords('Rings', [slip('GR', null)])).toBe('Planned “Rings” without a date: GR');
  expect(plannedWords('Rings', [slip('GR', '2026-12-08'), slip('PL', null)])).toBe(
    'Planned “Rings”: GR Tue 8 Dec, PL without a date',
  );
});
