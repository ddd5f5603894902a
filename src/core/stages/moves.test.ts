import { describe, expect, it } from 'vitest';
import type { Block } from '../posts/readiness';
import type { Want } from '../posts/wants';
import type { Result } from '../refusal';
import {
  mayEdit,
  mayLeavePlan,
  mayMoveTo,
  mayPlanFor,
  mayPublishNow,
  maySchedule,
  type ChosenStage,
  type MoveFacts,
} from './moves';
import { ALL_STAGES, notchesOf, STAGES } from './stages';

const block: Block = {
  code: 'tooLong',
  field: 'caption',
  short: 'caption too long',
  message: 'Pithline takes 320, this has 331.',
};
const facts: MoveFacts = {
  stage: 'drafting',
  blocks: [],
  wants: [],
  date: '2026-11-26',
  time: '14:30',
  zone: 'Europe/Lisbon',
  now: '2026-11-23T09:00:00.000Z',
  leaving: false,
};
const codeOf = (result: { ok: true } | { ok: false; refusal: { code: string } }) =>
  result.ok ? 'yes' : result.refusal.code;

describe('the table of moves by hand', () => {
  const goals: ChosenStage[] = ['drafting', 'production', 'signOff', 'ready'];
  const table: Record<string, [free: string, withBlocks: string]> = {};
  for (const from of ALL_STAGES)
    for (const to of goals)
      table[`${from} to ${to}`] =
        from === 'published'
          ? ['published', 'published']
          : from === 'setAside'
            ? ['setAside', 'setAside']
            : ['yes', to === 'ready' ? 'blocked' : 'yes'];

  it.each(Object.entries(table))('%s', (move, [free, withBlocks]) => {
    const [stage, to] = move.split(' to ') as [MoveFacts['stage'], ChosenStage];
    expect(codeOf(mayMoveTo({ ...facts, stage }, to))).toBe(free);
    expect(codeOf(mayMoveTo({ ...facts, stage, blocks: [block] }, to))).toBe(withBlocks);
    expect(codeOf(mayMoveTo({ ...facts, stage, leaving: true }, to))).toBe(
      stage === 'published' ? 'published' : 'leaving',
    );
  });

  it('covers every stage', () => expect(Object.keys(table)).toHaveLength(ALL_STAGES.length * goals.length));
});

describe('scheduling', () => {
  it.each([
    ['from any stage before', {}, 'yes'],
    ['again, to copy new words', { stage: 'scheduled' as const }, 'yes'],
    ['without a date', { date: null, time: null }, 'noDate'],
    ['without a time', { time: null }, 'noTime'],
    ['in the past', { date: '2026-11-23', time: '08:59' }, 'past'],
    ['at this very moment', { date: '2026-11-23', time: '09:00' }, 'past'],
    ['at a time the clock jumps over', { date: '2027-03-28', time: '01:30' }, 'skippedTime'],
    ['with a block', { blocks: [block] }, 'blocked'],
    [
      'with a block, at a time the clock jumps over',
      { date: '2027-03-28', time: '01:30', blocks: [block] },
      'skippedTime',
    ],
    ['published', { stage: 'published' as const }, 'published'],
    ['set aside', { stage: 'setAside' as const }, 'setAside'],
    ['while it is leaving', { stage: 'scheduled' as const, leaving: true }, 'leaving'],
  ])('%s', (_name, change, expected) => expect(codeOf(maySchedule({ ...facts, ...change }))).toBe(expected));

  it('gives the due instant of the wall clock', () =>
    expect(maySchedule({ ...facts, date: '2027-07-01' })).toEqual({ ok: true, value: '2027-07-01T13:30:00.000Z' }));

  it('says the first reason and how many more', () => {
    const result = maySchedule({ ...facts, blocks: [block, block] });
    expect(result.ok || result.refusal.message).toBe(
      'Not scheduled yet. Pithline takes 320, this has 331. (and 1 more)',
    );
  });
});

describe('what is refused is said, and where', () => {
  const refusalOf = (result: Result<unknown>) => (result.ok ? null : result.refusal);
  const want: Want = {
    code: 'altText',
    field: 'pictures',
    short: 'alt text',
    message: 'A picture has no alt text.',
  } as unknown as Want;

  it.each([
    ['no date', { date: null }, { code: 'noDate', field: 'date', message: 'Give it a date first.' }],
    ['no time', { time: null }, { code: 'noTime', field: 'time', message: 'Give it a time first.' }],
    [
      'the past',
      { date: '2026-11-23', time: '08:59' },
      { code: 'past', field: 'time', message: '2026-11-23 08:59 has passed. Choose a time to come.' },
    ],
    [
      'one block',
      { blocks: [block] },
      { code: 'blocked', field: 'caption', message: 'Not scheduled yet. Pithline takes 320, this has 331.' },
    ],
    [
      'a block and what is wanted',
      { blocks: [block], wants: [want] },
      {
        code: 'blocked',
        field: 'caption',
        message: 'Not scheduled yet. Pithline takes 320, this has 331. (and 1 more)',
      },
    ],
    [
      'what is wanted, which may be waived',
      { wants: [want] },
      {
        code: 'wanted',
        field: 'pictures',
        message: 'Not scheduled yet. A picture has no alt text. A manager may waive it with a reason.',
      },
    ],
  ])('%s', (_name, change, refusal) => expect(refusalOf(maySchedule({ ...facts, ...change }))).toEqual(refusal));

  it('by the name of the stage that was asked for', () => {
    expect(refusalOf(mayMoveTo({ ...facts, wants: [want] }, 'ready'))?.message).toMatch(/^Not ready yet\. A picture/);
    expect(refusalOf(mayPublishNow({ ...facts, wants: [want] }))?.message).toMatch(/^Not scheduled yet\. A picture/);
  });

  it('of a plan', () => {
    const refused = (date: string | null, time: string | null) =>
      refusalOf(mayPlanFor(facts, { date, time }, '2026-11-23', 'Europe/Lisbon'));
    expect(refused(null, '10:00')).toEqual({ code: 'timeWithoutDate', field: 'date', message: 'A time needs a date.' });
    expect(refused('2026-11-22', null)).toEqual({
      code: 'past',
      field: 'date',
      message: '2026-11-22 has passed. A post can be planned for today or later.',
    });
  });

  it.each(['published', 'leaving', 'setAside'] as const)('publishing now of what is %s', (why) => {
    const change = why === 'leaving' ? { leaving: true } : { stage: why };
    expect(codeOf(mayPublishNow({ ...facts, ...change }))).toBe(why);
  });

  it('a plan of what is published or leaving', () => {
    const plan = { date: '2026-11-24', time: null };
    const planned = (change: Partial<MoveFacts>) =>
      codeOf(mayPlanFor({ ...facts, ...change }, plan, '2026-11-23', 'Europe/Lisbon'));
    expect([planned({ stage: 'published' }), planned({ leaving: true })]).toEqual(['published', 'leaving']);
  });
});

describe('the other deeds', () => {
  it('publishes now without date or time, never with a block', () => {
    expect(codeOf(mayPublishNow({ ...facts, date: null, time: null }))).toBe('yes');
    expect(codeOf(mayPublishNow({ ...facts, blocks: [block] }))).toBe('blocked');
  });
  it('edits anything but what is out', () =>
    expect(ALL_STAGES.filter((stage) => !mayEdit({ stage }).ok)).toEqual(['published']));
  it('says that it is published', () => {
    const edited = mayEdit({ stage: 'published' });
    expect(edited.ok || edited.refusal).toEqual({ code: 'published', message: expect.stringContaining('published') });
  });
  it('takes no published post out of the plan', () => {
    expect(codeOf(mayLeavePlan({ stage: 'published', leaving: false }))).toBe('published');
    expect(codeOf(mayLeavePlan({ stage: 'scheduled', leaving: true }))).toBe('leaving');
    expect(codeOf(mayLeavePlan({ stage: 'scheduled', leaving: false }))).toBe('yes');
  });
  it.each([
    ['today', { date: '2026-11-23', time: null }, 'yes'],
    ['earlier today', { date: '2026-11-23', time: '06:00' }, 'yes'],
    ['yesterday', { date: '2026-11-22', time: null }, 'past'],
    ['no date', { date: null, time: null }, 'yes'],
    ['a time without a date', { date: null, time: '10:00' }, 'timeWithoutDate'],
    ['a skipped time', { date: '2027-03-28', time: '01:30' }, 'skippedTime'],
    ['a repeated time', { date: '2027-10-31', time: '01:30' }, 'yes'],
  ])('plans for %s', (_name, plan, expected) =>
    expect(codeOf(mayPlanFor(facts, plan, '2026-11-23', 'Europe/Lisbon'))).toBe(expected),
  );
});

it('fills one notch a stage', () => {
  expect(STAGES.map(notchesOf)).toEqual([1, 2, 3, 4, 5, 6]);
  expect(notchesOf('setAside')).toBe(0);
});
