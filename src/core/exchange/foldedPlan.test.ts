import { expect, it, vi } from 'vitest';
import { foldPlan, unfoldPlan } from './foldedPlan';
import type { ImportPlan } from './planImport';

const PLAN: ImportPlan = {
  mapping: { columns: { title: 0 }, channels: {}, stages: {}, dateOrder: 'ymd', past: null },
  rows: [
    {
      ...{ line: 2, key: 'a', givenId: '', pieceTitle: 'Rings', title: 'Rings', channelId: 'pl', date: null },
      lists: {
        parts: [{ text: 'One', picture: null }],
        extracts: [{ kind: 'quote', text: 'The rings are younger.', start: null }],
      },
    },
    { ...{ line: 3, key: 'b', givenId: '', pieceTitle: 'Mast', title: 'Mast', channelId: 'pl' }, lists: {} },
  ],
  bad: [{ line: 4, reason: 'it has no title' }],
  ...{ unknownChannels: [], unknownStages: [], asksDateOrder: false, pastRows: 0 },
};

it('a plan goes from one thread to another and is the same', () => {
  expect(unfoldPlan(structuredClone(foldPlan(PLAN)))).toEqual(PLAN);
});

it('a list is read when it is looked at, and once', () => {
  const folded = foldPlan(PLAN);
  const parse = vi.spyOn(JSON, 'parse');
  const [row] = unfoldPlan(folded).rows;
  expect([Object.keys(row!.lists), parse.mock.calls.length]).toEqual([['parts', 'extracts'], 0]);
  expect(row!.lists.parts).toBe(row!.lists.parts);
  expect(parse).toHaveBeenCalledTimes(1);
  parse.mockRestore();
});
