import { describe, expect, it } from 'vitest';
import { FORMATS } from '../rulesheets/types';
import { beginnings, loadByDay, minutesTogether, minutesWords } from './load';
import { progressOf, progressTogether } from './progress';
import { SHIPPED_PREP } from './shipped';
import { leadWords, LEAD_LIMIT, readPrep, readStep, STEPS_LIMIT, type PrepLine } from './step';
import { whoDoes } from './who';

const LINE: PrepLine = {
  title: ' Record  it ',
  work: 'recording',
  ownerId: null,
  craft: 'videoEditor',
  lead: 4,
  leadIn: 'working',
  minutes: 45,
  note: '',
  needed: true,
  ticksItself: false,
};

describe('a step', () => {
  it('is read with a tidy title', () => {
    expect(readStep(LINE)).toEqual({ ok: true, value: { ...LINE, title: 'Record it' } });
  });
  it.each([
    ['noTitle', { title: '  ' }],
    ['longTitle', { title: 'x'.repeat(121) }],
    ['badWork', { work: 'dancing' as 'words' }],
    ['badCraft', { craft: 'pilot' as 'writer' }],
    ['badLead', { lead: 4_000 }],
    ['badLead', { lead: 1.5 }],
    ['badLead', { leadIn: 'weeks' as 'working' }],
    ['badMinutes', { minutes: 0 }],
    ['longNote', { note: 'x'.repeat(2_001) }],
  ])('is refused: %s', (code, change) => {
    expect(readStep({ ...LINE, ...change })).toMatchObject({ ok: false, refusal: { code } });
  });
  it('says its lead in words', () => {
    expect([leadWords(2, 'working'), leadWords(0, 'working'), leadWords(-1, 'calendar')]).toEqual([
      '2 working days before',
      'on the day',
      '1 day after',
    ]);
  });
});

describe('a prep sheet', () => {
  it('that ships holds steps in the order of their days, for every format', () => {
    for (const format of FORMATS) {
      const steps = SHIPPED_PREP[format];
      expect(steps.length, format).toBeGreaterThan(0);
      expect(readPrep(steps).ok, format).toBe(true);
      expect(
        [...steps].sort((a, b) => b.lead - a.lead),
        format,
      ).toEqual(steps);
    }
  });
  it('is refused when it holds too many, or one that is none', () => {
    expect(readPrep(Array.from({ length: STEPS_LIMIT + 1 }, () => LINE))).toMatchObject({
      refusal: { code: 'tooManySteps' },
    });
    expect(readPrep([LINE, { ...LINE, lead: -LEAD_LIMIT - 1 }])).toMatchObject({ refusal: { code: 'badLead' } });
  });
});

describe('who does a step', () => {
  const people = [
    { id: 'ines', crafts: ['manager', 'writer'] as const },
    { id: 'bex', crafts: ['designer'] as const },
    { id: 'jo', crafts: ['writer'] as const },
  ];
  const who = (line: Partial<PrepLine>, owner = 'bex') =>
    whoDoes({ ownerId: null, craft: null, ...line }, people, owner);
  it('is the person named, or who alone has the craft, or the owner', () => {
    expect(who({ ownerId: 'jo' })).toBe('jo');
    expect(who({ craft: 'designer' }, 'ines')).toBe('bex');
    expect(who({})).toBe('bex');
  });
  it('is the owner where several have the craft and the owner is among them, else open', () => {
    expect(who({ craft: 'writer' }, 'ines')).toBe('ines');
    expect(who({ craft: 'writer' }, 'bex')).toBeNull();
    expect(who({ craft: 'videoEditor' })).toBeNull();
  });
  it('is not somebody who left', () => expect(who({ ownerId: 'gone', craft: 'designer' })).toBe('bex'));
});

it('progress is told by sort of work, in the order of the work', () => {
  expect(progressOf({ picture: [0, 1], sending: [0, 0], words: [1, 2], recording: [0, 0], editing: [0, 0] })).toEqual([
    { work: 'words', done: 1, all: 2 },
    { work: 'picture', done: 0, all: 1 },
  ]);
});

describe('what lies on a day', () => {
  it('adds up, and is too much beyond the person’s time', () => {
    const capacity = (date: string) => (date === '2026-11-28' ? 0 : 60);
    expect(
      loadByDay(
        [
          { day: '2026-11-28', minutes: 5 },
          { day: '2026-11-23', minutes: 50 },
          { day: '2026-11-23', minutes: null },
        ],
        capacity,
      ),
    ).toEqual([
      { date: '2026-11-23', minutes: 65, steps: 2, capacity: 60, isTooMuch: true },
      { date: '2026-11-28', minutes: 5, steps: 1, capacity: 0, isTooMuch: true },
    ]);
  });
  it('is done one step after the other', () => {
    const steps = [{ minutes: 45 }, { minutes: null }, { minutes: 30 }];
    expect(beginnings('10:00', steps)).toEqual(['10:00', '10:45', '11:00']);
    expect(minutesTogether(steps)).toBe(90);
    expect(beginnings('23:30', steps)).toEqual(['23:30', '23:59', '23:59']);
  });
  it('is said as people say it', () => {
    expect([45, 60, 95, 360].map(minutesWords)).toEqual(['45 min', '1 h', '1 h 35', '6 h']);
  });
});

describe('the progress of a piece', () => {
  it('is that of its posts together, by sort of work', () =>
    expect(
      progressTogether([
        [
          { work: 'words', done: 2, all: 3 },
          { work: 'picture', done: 0, all: 1 },
        ],
        [{ work: 'words', done: 0, all: 1 }],
        [],
      ]),
    ).toEqual([
      { work: 'words', done: 2, all: 4 },
      { work: 'picture', done: 0, all: 1 },
    ]));
  it('is none without posts', () => expect(progressTogether([])).toEqual([]));
});
