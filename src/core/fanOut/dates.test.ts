import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Opening } from '../rhythm/openings';
import { addDays, daysBetween } from '../time/days';
import { dateFanOut, type DateGround, type UndatedPost } from './dates';

const TODAY = '2026-11-23';
const opening = (date: string, more: Partial<Opening> = {}): Opening => ({
  key: `${more.channelId ?? 'gr'}:${date}`,
  channelId: 'gr',
  date,
  time: '18:00',
  format: null,
  theme: '',
  until: null,
  pillarId: null,
  ...more,
});
const weekly = (channelId: string, weeks = 60): Opening[] =>
  Array.from({ length: weeks }, (_, week) => opening(addDays('2026-11-27', 7 * week), { channelId }));
const post = (number: number, more: Partial<UndatedPost> = {}): UndatedPost => ({
  key: `${more.row ?? 0}-${number}`,
  row: 0,
  number,
  channelId: 'gr',
  format: 'photo',
  offset: 0,
  gap: 7,
  pillarId: null,
  ...more,
});
const ground = (more: Partial<DateGround> = {}): DateGround => ({
  anchor: '2026-11-24',
  today: TODAY,
  openings: weekly('gr'),
  rhythmic: new Set(['gr']),
  takenDays: new Map(),
  isSqueezed: () => false,
  ...more,
});
const dates = (posts: UndatedPost[], more: Partial<DateGround> = {}) =>
  [...dateFanOut(posts, ground(more))].map(([key, { date, time, isSqueezed }]) => [key, date, time, isSqueezed]);

describe('the dates of a fan-out', () => {
  it('are the earliest fitting openings, in the order of offset, row and number', () => {
    expect(dates([post(1), post(0), post(0, { row: 1, offset: 0 })])).toEqual([
      ['0-0', '2026-11-27', '18:00', false],
      ['0-1', '2026-12-04', '18:00', false],
      ['1-0', '2026-12-11', '18:00', false],
    ]);
    expect(dates([post(0, { offset: 10 })])).toEqual([['0-0', '2026-12-04', '18:00', false]]);
  });

  it('take no opening of another format, and one of another pillar only where no other fits', () => {
    const openings = [
      opening('2026-11-25', { format: 'story' }),
      opening('2026-11-26', { pillarId: 'other' }),
      opening('2026-11-28', { pillarId: 'own' }),
    ];
    expect(dates([post(0, { pillarId: 'own' })], { openings })).toEqual([['0-0', '2026-11-28', '18:00', false]]);
    expect(dates([post(0, { pillarId: 'own' })], { openings: openings.slice(0, 2) })).toEqual([
      ['0-0', '2026-11-26', '18:00', false],
    ]);
    expect(dates([post(0)], { openings: openings.slice(0, 1) })).toEqual([['0-0', null, null, false]]);
  });

  it('leave time for the steps where there is an opening that does; else say that there is too little', () => {
    const isSqueezed = (_post: UndatedPost, date: string) => date < '2026-12-10';
    expect(dates([post(0)], { isSqueezed })).toEqual([['0-0', '2026-12-11', '18:00', false]]);
    expect(dates([post(0)], { isSqueezed: () => true })).toEqual([['0-0', '2026-11-27', '18:00', true]]);
  });

  it('go as far as a year, and then are none', () => {
    expect(dates([post(0)], { openings: [opening('2027-03-01')] })[0]![1]).toBe('2027-03-01');
    expect(dates([post(0)], { openings: [opening('2028-03-01')] })[0]![1]).toBeNull();
  });

  it('of a channel without a rhythm are days without a time', () => {
    const more = { openings: [], rhythmic: new Set<string>(), takenDays: new Map([['gr', new Set(['2026-11-24'])]]) };
    expect(dates([post(0), post(1)], more)).toEqual([
      ['0-0', '2026-11-25', null, false],
      ['0-1', '2026-12-02', null, false],
    ]);
  });

  it('never lie in the past, even where the anchor does', () => {
    expect(
      dates([post(0)], { anchor: '2026-11-01', openings: [opening('2026-11-23'), opening('2026-11-25')] })[0]![1],
    ).toBe('2026-11-25');
  });

  it('keep the gap of their row and never put a piece twice on a channel’s day, whatever is asked', () => {
    const some = fc.record({
      row: fc.nat(3),
      number: fc.nat(5),
      channelId: fc.constantFrom('gr', 'pl', 'bf'),
      offset: fc.nat(20),
      gap: fc.integer({ min: 1, max: 9 }),
    });
    fc.assert(
      fc.property(
        fc.uniqueArray(some, { maxLength: 12, selector: ({ row, number }) => `${row}-${number}` }),
        fc.array(fc.nat(90), { maxLength: 40 }),
        (asked, days) => {
          const posts = asked.map((one) =>
            post(one.number, { ...one, key: `${one.row}-${one.number}`, gap: one.row + 1 }),
          );
          const openings = ['gr', 'pl'].flatMap((channelId) =>
            [...new Set(days)].sort((a, b) => a - b).map((day) => opening(addDays('2026-11-24', day), { channelId })),
          );
          const made = dateFanOut(posts, ground({ openings, rhythmic: new Set(['gr', 'pl']) }));
          expect(made.size).toBe(posts.length);
          const dated = posts.flatMap((one) =>
            made.get(one.key)!.date === null ? [] : [{ ...one, date: made.get(one.key)!.date! }],
          );
          for (const one of dated)
            for (const other of dated) {
              if (one === other) continue;
              if (one.channelId === other.channelId) expect(one.date).not.toBe(other.date);
              if (one.row === other.row)
                expect(Math.abs(daysBetween(one.date, other.date))).toBeGreaterThanOrEqual(one.gap);
            }
          for (const one of dated) expect(one.date >= addDays('2026-11-24', one.offset)).toBe(true);
        },
      ),
    );
  });
});
