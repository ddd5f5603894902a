import fc from 'fast-check';
import { expect, it } from 'vitest';
import { carryOver } from './carryOver';

const post = (id: string, change: Partial<Parameters<typeof carryOver>[0][number]> = {}) => ({
  ...{ id, channelId: 'pl', format: 'text' as const, date: '2026-11-20', time: '10:00' },
  ...change,
});
const opening = (date: string, change: Partial<Parameters<typeof carryOver>[1][number]> = {}) => ({
  ...{ channelId: 'pl', date, time: '16:40', format: null },
  ...change,
});
const AT = { tomorrow: '2026-11-26', rhythmic: new Set(['pl']) };

it('gives each its next opening of its format, the one that was due first before the others', () => {
  const missed = [
    post('later', { date: '2026-11-22' }),
    post('untimed', { time: null }),
    post('first'),
    post('video', { format: 'shortVideo' }),
  ];
  const openings = [
    opening('2026-11-26', { format: 'shortVideo' }),
    opening('2026-11-27', { channelId: 'gr' }),
    opening('2026-11-28', { format: 'text' }),
    opening('2026-11-30'),
  ];
  expect(carryOver(missed, openings, AT)).toEqual([
    { id: 'first', to: { date: '2026-11-28', time: '16:40' } },
    { id: 'video', to: { date: '2026-11-26', time: '16:40' } },
    { id: 'untimed', to: { date: '2026-11-30', time: '16:40' } },
    { id: 'later', to: null },
  ]);
});

it('goes day by day on a channel without a rhythm, at the post’s own time', () =>
  expect(carryOver([post('b', { channelId: 'hs', time: null }), post('a', { channelId: 'hs' })], [], AT)).toEqual([
    { id: 'a', to: { date: '2026-11-26', time: '10:00' } },
    { id: 'b', to: { date: '2026-11-27', time: null } },
  ]));

it('names every post once and no opening twice', () => {
  const formats = fc.constantFrom('text' as const, 'photo' as const);
  const posts = fc.array(fc.record({ format: formats, day: fc.integer({ min: 10, max: 20 }) }), { maxLength: 12 });
  const free = fc.array(fc.option(formats), { maxLength: 12 });
  fc.assert(
    fc.property(posts, free, (missed, openings) => {
      const made = carryOver(
        missed.map(({ format, day }, at) => post(String(at), { format, date: `2026-11-${day}` })),
        openings.map((format, at) => opening(`2026-12-${10 + at}`, { format })),
        AT,
      );
      expect(new Set(made.map(({ id }) => id)).size).toBe(missed.length);
      const dates = made.flatMap(({ to }) => to?.date ?? []);
      expect(new Set(dates).size).toBe(dates.length);
    }),
  );
});
