import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { STAGES } from '../stages/stages';
import { addDays } from '../time/days';
import { applyChange } from './change';
import { changeOfDrop } from './changeOfDrop';
import { dayPlace, type DropPlace } from './drop';
import { testSlip } from './testSlip';

const DAY = '2026-12-01';
const post = (change: Parameters<typeof testSlip>[0] = {}) =>
  testSlip({ id: 'a', channelId: 'GR', date: DAY, time: '10:05', stage: 'production', ...change });
const place = (change: Partial<Extract<DropPlace, { kind: 'day' }>>): DropPlace =>
  ({ ...dayPlace('2026-12-03'), ...change }) as DropPlace;

describe('a post dropped', () => {
  it.each([
    ['on another day keeps its time', place({}), { date: '2026-12-03' }],
    ['on its own day changes nothing', place({ date: DAY }), null],
    ['on its own lane changes nothing', place({ date: DAY, channelId: 'GR' }), null],
    ['on another lane of its day', place({ date: DAY, channelId: 'PL' }), { date: DAY, channelId: 'PL' }],
    ['on its own minute changes nothing', place({ date: DAY, time: '10:05' }), null],
    [
      'on an opening takes what that asks for',
      place({ time: '18:00', channelId: 'PL', format: 'thread' }),
      { date: '2026-12-03', time: '18:00', channelId: 'PL', format: 'thread' },
    ],
  ])('%s', (_name, at, expected) =>
    expect(changeOfDrop([post()], at, false)?.change ?? null).toEqual(expected && { kind: 'place', ...expected }),
  );

  it.each([
    ['keeps its minutes on the hours of a day', true, post(), '14:05'],
    ['takes the full hour elsewhere', false, post(), '14:00'],
    ['takes the full hour when it had no time', true, post({ time: null }), '14:00'],
  ])('%s', (_name, keepsMinutes, slip, time) =>
    expect(changeOfDrop([slip], place({ time: '14:00' }), keepsMinutes)?.change).toMatchObject({ time }),
  );

  it('on an opening of a full hour takes that hour, also where minutes are kept', () =>
    expect(changeOfDrop([post()], place({ time: '14:00', format: 'carousel' }), true)?.change).toMatchObject({
      time: '14:00',
    }));

  it.each(['published', 'setAside'] as const)('on %s changes nothing: that is not reached by dropping', (stage) =>
    expect(changeOfDrop([post()], { kind: 'stage', stage }, false)).toBeNull(),
  );
});

describe('several posts dropped', () => {
  const other = post({ id: 'b', channelId: 'PL', date: '2026-12-05', stage: 'ready' });
  const undated = post({ id: 'c', date: null, time: null });

  it('move by as many days as the one that was taken hold of, each on its channel', () =>
    expect(changeOfDrop([post(), other], place({ channelId: 'BF' }), false)).toEqual({
      slips: [post(), other],
      change: { kind: 'shift', days: 2 },
    }));
  it('on the day of the one that was taken hold of stay', () =>
    expect(changeOfDrop([post(), other], place({ date: DAY, channelId: 'PL' }), false)).toBeNull());
  it('all get the day when the one taken hold of has none', () =>
    expect(changeOfDrop([undated, other], place({}), false)).toEqual({
      slips: [undated, other],
      change: { kind: 'place', date: '2026-12-03' },
    }));
  it('go to the tray as far as they are not there', () => {
    expect(changeOfDrop([undated, other], { kind: 'tray' }, false)?.slips).toEqual([other]);
    expect(changeOfDrop([undated], { kind: 'tray' }, false)).toBeNull();
  });
  it('get a stage as far as they do not have it', () => {
    expect(changeOfDrop([post(), other], { kind: 'stage', stage: 'ready' }, false)?.slips).toEqual([post()]);
    expect(changeOfDrop([other], { kind: 'stage', stage: 'ready' }, false)).toBeNull();
  });
});

it('a drop on a day always ends on that day, and one that changes nothing is none', () =>
  fc.assert(
    fc.property(
      fc.integer({ min: -30, max: 30 }),
      fc.constantFrom(null, 'GR', 'PL'),
      fc.constantFrom(null, '10:00', '10:05'),
      fc.constantFrom(...STAGES),
      (days, channelId, time, stage) => {
        const slip = post({ stage });
        const date = addDays(DAY, days);
        const dropped = changeOfDrop([slip], place({ date, channelId, time }), false);
        const after = dropped ? applyChange(slip, dropped.change) : slip;
        expect([after.date, after.channelId, after.time]).toEqual([
          date,
          channelId ?? slip.channelId,
          time ?? slip.time,
        ]);
        if (dropped) expect(after).not.toEqual(slip);
      },
    ),
  ));
