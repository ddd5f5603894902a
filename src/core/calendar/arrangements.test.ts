import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Opening } from '../rhythm/openings';
import { timeOf } from '../time/days';
import { applyChange, changeWords, type Change } from './change';
import { layOutDay, shownHours } from './day';
import { isFiltering, NO_FILTER, readFilter, writeFilter } from './filter';
import { cellKey, layOutLanes } from './lanes';
import type { Slip } from './slip';
import { testSlip } from './testSlip';

const post = (id: string, time: string | null, channelId = 'c', date: string | null = '2026-11-23') => ({
  id,
  time,
  channelId,
  date,
  callSign: 'GR',
});
const opening = (key: string, time: string): Opening => ({
  key,
  channelId: 'c',
  date: '2026-11-23',
  time,
  format: null,
  theme: '',
  until: null,
  pillarId: null,
});

describe('lanes', () => {
  const namesIn = (room: number, posts: ReturnType<typeof post>[], openings: Opening[]) => {
    const cell = layOutLanes(posts, openings, room).get(cellKey('c', '2026-11-23'))!;
    return [cell.items.map((item) => (item.kind === 'post' ? item.post.id : item.opening.key)), cell.hidden];
  };
  it('stack posts and openings by time, a post before an opening of the same minute, untimed last', () =>
    expect(
      namesIn(9, [post('none', null), post('noon', '12:00')], [opening('o12', '12:00'), opening('o9', '09:00')]),
    ).toEqual([['o9', 'noon', 'o12', 'none'], 0]));
  it('count what has no room, keeping a line for the count', () => {
    const posts = ['08:00', '09:00', '10:00', '11:00'].map((time, index) => post(String(index), time));
    expect(namesIn(4, posts, [])).toEqual([['0', '1', '2', '3'], 0]);
    expect(namesIn(3, posts, [])).toEqual([['0', '1'], 2]);
  });
  it('leave undated posts out and lose none of the others', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.nat(3), fc.option(fc.nat(1439), { nil: null }), fc.boolean())),
        fc.integer({ min: 2, max: 6 }),
        (list, room) => {
          const posts = list.map(([channel, minute, dated], index) =>
            post(String(index), minute === null ? null : timeOf(minute), `c${channel}`, dated ? '2026-11-23' : null),
          );
          const cells = [...layOutLanes(posts, [], room).values()];
          const total = cells.reduce((sum, cell) => sum + cell.items.length + cell.hidden, 0);
          expect(total).toBe(posts.filter(({ date }) => date !== null).length);
          expect(cells.every((cell) => cell.items.length <= room && cell.hidden !== 1)).toBe(true);
        },
      ),
    );
  });
});

describe('the day', () => {
  it('sets what overlaps side by side, and nothing else', () =>
    expect(
      layOutDay([{ time: '09:00' }, { time: '09:20' }, { time: '11:00' }, { time: '09:50' }], 45).map(
        ({ item, column, columns }) => [item.time, column, columns],
      ),
    ).toEqual([
      ['09:00', 0, 2],
      ['09:20', 1, 2],
      ['09:50', 0, 2],
      ['11:00', 0, 1],
    ]));
  it('never lets two in one column overlap, and no group is wider than need be', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(1439), { maxLength: 30 }), (minutes) => {
        const blocks = layOutDay(
          minutes.map((minute) => ({ time: timeOf(minute) })),
          40,
        );
        expect(blocks).toHaveLength(minutes.length);
        for (const a of blocks)
          for (const b of blocks)
            if (a !== b && Math.abs(a.start - b.start) < 40) {
              expect(a.column).not.toBe(b.column);
              expect(a.columns).toBe(b.columns);
            }
        for (const block of blocks) {
          expect(block.column).toBeLessThan(block.columns);
          const mostAtOnce = Math.max(
            ...blocks
              .filter((other) => other.columns === block.columns)
              .map((other) => blocks.filter((one) => one.start <= other.start && other.start < one.start + 40).length),
          );
          expect(block.columns).toBeLessThanOrEqual(mostAtOnce);
        }
      }),
    );
  });
  it('folds early and late hours when they are empty', () => {
    expect(shownHours([])).toEqual({ first: 7, last: 21 });
    expect(shownHours(['05:10', '23:40'])).toEqual({ first: 5, last: 23 });
  });
});

describe('the filter in an address', () => {
  const id = '3f2a1c00-0000-4000-8000-000000000001';
  it('reads what it wrote', () => {
    const filter = {
      ...NO_FILTER,
      channels: [id],
      stages: ['ready' as const],
      lacks: ['picture' as const],
      words: 'moon',
    };
    const written = writeFilter(filter);
    expect(readFilter((name) => written[name])).toEqual(filter);
    expect(isFiltering(filter)).toBe(true);
    expect(isFiltering(NO_FILTER)).toBe(false);
  });
  it('passes over nonsense', () => {
    const nonsense: Record<string, string> = { channel: 'x,y', stage: 'ready,lost', lacks: 'sleep', words: '  ' };
    expect(readFilter((name) => nonsense[name])).toEqual({ ...NO_FILTER, stages: ['ready'] });
  });
});

const slip = (id: string, more: Partial<Slip> = {}): Slip =>
  testSlip({
    id,
    channelId: 'GR',
    title: id,
    date: '2026-11-23',
    time: '10:00',
    stage: 'drafting',
    ownerId: 'ines',
    ...more,
  });

describe('a change', () => {
  const one = slip('x');
  it.each<[Change, Partial<Slip>]>([
    [
      { kind: 'place', date: '2026-11-30' },
      { date: '2026-11-30', time: '10:00' },
    ],
    [
      { kind: 'place', date: '2026-11-30', time: '12:00', channelId: 'PL' },
      { date: '2026-11-30', time: '12:00', channelId: 'PL' },
    ],
    [
      { kind: 'place', date: null },
      { date: null, time: null },
    ],
    [{ kind: 'shift', days: -7 }, { date: '2026-11-16' }],
    [{ kind: 'time', time: null }, { time: null }],
    [{ kind: 'stage', stage: 'ready' }, { stage: 'ready' }],
    [{ kind: 'title', title: 'New' }, { title: 'New' }],
    [{ kind: 'owner', ownerId: 'bex' }, { ownerId: 'bex' }],
    [{ kind: 'pillar', pillarId: 'Sky' }, { pillarId: 'Sky' }],
    [{ kind: 'campaign', campaignId: 'Rings' }, { campaignId: 'Rings' }],
    [{ kind: 'setAside', reason: 'rain' }, { stage: 'setAside' }],
    [{ kind: 'copy', days: 7, channelIds: null }, {}],
  ])('%j shows at once', (change, expected) => {
    expect(applyChange(one, change)).toEqual({ ...one, ...expected });
    expect(changeWords(change, 1)).toContain('1 post');
    expect(changeWords(change, 3)).toContain('3 posts');
  });
  it('has no date to move where there is none', () => {
    const undated = slip('u', { date: null, time: null });
    expect(applyChange(undated, { kind: 'shift', days: 3 })).toBe(undated);
    expect(applyChange(undated, { kind: 'time', time: '10:00' })).toBe(undated);
  });
  it('is told with number and direction', () => {
    expect(changeWords({ kind: 'shift', days: -7 }, 3)).toBe('Moved 3 posts 7 days earlier');
    expect(changeWords({ kind: 'place', date: null }, 1)).toBe('Moved 1 post to the tray');
    expect(changeWords({ kind: 'copy', days: 0, channelIds: ['x'] }, 2)).toBe('Made 2 posts for other channels');
  });
});
