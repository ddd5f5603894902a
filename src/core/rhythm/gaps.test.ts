import { expect, it } from 'vitest';
import { gapsByNeed } from './gaps';

const NOW = { date: '2026-11-23', time: '11:42' };
const place = (key: string, date: string, time: string, channelId = 'c') => ({
  key,
  channelId,
  date,
  time,
  format: null,
});
const order = (...places: ReturnType<typeof place>[]) => gapsByNeed(places, [], () => 14, NOW).map(({ key }) => key);

it('gaps needed alike come by date and time, then channel, then key', () => {
  expect(
    order(
      place('z', '2026-11-24', '18:00', 'a'),
      place('y', '2026-11-24', '18:00', 'b'),
      place('x', '2026-11-24', '18:00', 'b'),
      place('w', '2026-11-24', '09:00', 'z'),
    ),
  ).toEqual(['w', 'z', 'x', 'y']);
});

it('a gap at this very minute is one, and one of yesterday is none', () =>
  expect(
    order(
      place('now', '2026-11-23', '11:42'),
      place('over', '2026-11-23', '11:41'),
      place('was', '2026-11-22', '18:00'),
    ),
  ).toEqual(['now']));
