import { expect, it } from 'vitest';
import type { RhythmEntry } from './entry';
import { sameRhythm } from './sameRhythm';

const monday: Omit<RhythmEntry, 'id'> = {
  recurrence: { kind: 'weekly', weekday: 1, every: 1 },
  time: '10:00',
  format: null,
  theme: '',
  pillarId: null,
  from: null,
  to: null,
};
const friday: typeof monday = { ...monday, recurrence: { every: 1, weekday: 5, kind: 'weekly' } };
const pauses = [{ name: 'Fair', from: '2026-12-01', to: '2026-12-03' }];

it('a rhythm is the same in whatever order it is written down', () => {
  const turned = Object.fromEntries(Object.entries(monday).reverse()) as typeof monday;
  expect(sameRhythm({ entries: [monday, friday], pauses }, { entries: [friday, turned], pauses })).toBe(true);
});

it('and another with any entry, time or pause more or less', () => {
  const rhythm = { entries: [monday, friday], pauses };
  expect(sameRhythm(rhythm, { ...rhythm, entries: [monday] })).toBe(false);
  expect(sameRhythm(rhythm, { ...rhythm, entries: [monday, { ...friday, time: '11:00' }] })).toBe(false);
  expect(sameRhythm(rhythm, { ...rhythm, entries: [monday, monday] })).toBe(false);
  expect(sameRhythm(rhythm, { ...rhythm, pauses: [] })).toBe(false);
});
