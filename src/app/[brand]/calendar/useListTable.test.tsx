// @vitest-environment jsdom
import { cleanup, renderHook } from '@testing-library/react';
import fc from 'fast-check';
import { afterEach, describe, expect, it } from 'vitest';
import { GROUPINGS, SORTS, type Names } from '@/core/calendar/list';
import type { Slip } from '@/core/calendar/slip';
import { testSlip } from '@/core/calendar/testSlip';
import { useListTable, type ListLook } from './useListTable';
import type { Column } from './view';

afterEach(cleanup);

const NONE: ReadonlySet<string> = new Set();
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

describe('the list', () => {
  const names: Names = {
    channel: (id) => ({ GR: 'Glassrow', PL: 'Pithline' })[id] ?? '',
    owner: (id) => id,
    pillar: (id) => id,
    piece: (id) => id,
    day: (date) => date,
  };
  const usual = {
    sort: 'date',
    descending: false,
    group: 'none',
    columns: new Set<Column>(['title', 'date']),
  } as const;
  const draw = (slips: Slip[], { folded = NONE, ...view }: Partial<ListLook> & { folded?: ReadonlySet<string> } = {}) =>
    renderHook(() => useListTable(slips, { ...usual, ...view }, folded, names)).result.current;
  const rows = (...given: Parameters<typeof draw>) =>
    draw(...given).rows.map((row) => (row.kind === 'post' ? row.slip.id : `${row.label} (${row.count})`));
  const some = [
    slip('b', { time: null, stage: 'published' }),
    slip('a', { channelId: 'PL', pillarId: 'Sky' }),
    slip('c', { date: '2026-11-22', pillarId: 'Dome' }),
    slip('d', { date: null, time: null, stage: 'setAside' }),
  ];
  it('sorts by date, untimed last in their day, undated last', () => {
    expect(rows(some)).toEqual(['c', 'a', 'b', 'd']);
    expect(rows(some, { descending: true })).toEqual(['d', 'b', 'a', 'c']);
    expect(rows(some, { sort: 'channel' })).toEqual(['c', 'b', 'd', 'a']);
    expect(rows(some, { sort: 'stage' })).toEqual(['c', 'a', 'b', 'd']);
  });
  it('groups with counts, and folds', () => {
    expect(rows(some, { group: 'day' })).toEqual([
      '2026-11-22 (1)',
      'c',
      '2026-11-23 (2)',
      'a',
      'b',
      'without a date (1)',
      'd',
    ]);
    expect(rows(some, { group: 'pillar', folded: new Set(['~']) })).toEqual([
      'Dome (1)',
      'c',
      'Sky (1)',
      'a',
      'no pillar (2)',
    ]);
    expect(rows(some, { group: 'stage' }).filter((row) => row.includes('('))).toEqual([
      'drafting (2)',
      'published (1)',
      'set aside (1)',
    ]);
    expect(rows(some, { group: 'channel' }).filter((row) => row.includes('('))).toEqual([
      'Glassrow (3)',
      'Pithline (1)',
    ]);
  });

  it('shows the columns asked for, in their own order', () => {
    const { headers } = draw(some);
    expect(headers.map(({ column }) => [column.id, column.columnDef.header])).toEqual([
      ['date', 'Date'],
      ['title', 'Title'],
    ]);
  });

  it('gives every post once, whatever it is sorted and grouped by', () => {
    const place = fc.record({
      date: fc.constantFrom(null, '2026-11-22', '2026-11-23'),
      channelId: fc.constantFrom('GR', 'PL'),
      pillarId: fc.constantFrom(null, 'Sky', 'Dome'),
      ownerId: fc.constantFrom('ines', 'bex'),
    });
    const look = fc.record({
      sort: fc.constantFrom(...SORTS),
      group: fc.constantFrom(...GROUPINGS),
      descending: fc.boolean(),
    });
    fc.assert(
      fc.property(fc.array(place, { maxLength: 20 }), look, (places, view) => {
        const slips = places.map((one, index) => slip(String(index), one));
        const all = draw(slips, view).rows;
        const posts = all.flatMap((row) => (row.kind === 'post' ? [row.slip.id] : []));
        expect(posts.toSorted()).toEqual(slips.map(({ id }) => id).toSorted());
        const counts = all.flatMap((row) => (row.kind === 'group' ? [row.count] : []));
        if (view.group !== 'none') expect(counts.reduce((sum, count) => sum + count, 0)).toBe(slips.length);
      }),
      { numRuns: 60 },
    );
  });
});
