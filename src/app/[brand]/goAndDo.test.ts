import { defaultFilter } from 'cmdk';
import { describe, expect, it, vi } from 'vitest';
import { deedsOf, rankDeeds } from './goAndDo';

const go = vi.fn();
const deeds = deedsOf(
  '/moor',
  '2026-11-23',
  go,
  { onCatch: vi.fn(), onHelp: vi.fn(), onGround: vi.fn(), onUndo: vi.fn(), onRedo: vi.fn() },
  { undo: 'Moved “Rings”', redo: null },
  () => true,
);
const best = (typed: string) => rankDeeds(deeds, typed, (text, words) => defaultFilter(text, words))[0]?.deed.label;

describe('what “Find and do” knows', () => {
  it.each([
    ['export', 'Import and export posts'],
    ['import', 'Import and export posts'],
    ['new post', 'New post…'],
    ['duplicate', 'Encores'],
    ['print', 'Print the calendar'],
    ['prep', 'Settings: prep sheets'],
    ['batch', 'Batch day: plan one'],
    ['undo', 'Undo: Moved “Rings”'],
    ['desk', 'Desk'],
    ['month', 'Calendar: month'],
    ['hashtags', 'Shelf'],
    ['time zone', 'Settings: brand, zone, days off'],
    ['idea', 'Ideas'],
    ['dark', 'Theme: dark'],
  ])('“%s” leads to “%s”', (typed, label) => expect(best(typed)).toBe(label));

  it('is all of it before anything is typed, in its order, and nothing for what it does not know', () => {
    expect(rankDeeds(deeds, ' ', () => 0).map(({ deed }) => deed)).toEqual(deeds);
    expect(best('xqzw')).toBeUndefined();
  });

  it('has no label twice', () => {
    expect(new Set(deeds.map(({ label }) => label)).size).toBe(deeds.length);
  });

  it('goes to the places of its brand', () => {
    deeds.find(({ label }) => label === 'Desk')!.run();
    deeds.find(({ label }) => label === 'New brand…')!.run();
    expect(go.mock.calls).toEqual([['/moor/desk'], ['/begin']]);
  });
});

it('offers nothing that would be refused', () => {
  const known = (rights: readonly string[]) =>
    deedsOf(
      '/moor',
      '2026-11-23',
      go,
      { onCatch: vi.fn(), onHelp: vi.fn(), onGround: vi.fn(), onUndo: vi.fn(), onRedo: vi.fn() },
      { undo: 'Moved', redo: 'Moved' },
      (deed) => rights.includes(deed),
    ).map(({ label }) => label);
  const looking = known(['look']);
  expect(looking).toContain('Calendar: list');
  expect(looking.filter((label) => /^(New|Catch|Undo|Redo|Settings|Import|Deleted|Batch)/.test(label))).toEqual([
    'Settings: people',
  ]);
  expect(known(['look', 'exchange'])).toContain('Import and export posts');
});
