import { expect, it } from 'vitest';
import { SHIPPED_RULE_SHEETS } from '../rulesheets/shipped';
import { overIn, roomOf } from './ownTexts';

const sheet = SHIPPED_RULE_SHEETS.find(({ slug }) => slug === 'pithline')!;
const draft = { words: { caption: 'A bell.', hashtags: '#Fog', link: '' }, parts: ['Two. 2/2'] };

it('counts each text as its network does, and says what does not fit', () => {
  const room = roomOf(draft, {}, sheet, 'thread');
  expect(room.map(({ of, count }) => [of, count])).toEqual([
    ['caption', 'A bell.'.length + '\n\n#Fog'.length],
    [0, 8],
  ]);
  expect(overIn(room)).toEqual([]);
  const own = { words: { caption: 'x'.repeat(330) }, parts: ['月'.repeat(170)] };
  expect(overIn(roomOf(draft, own, sheet, 'thread'))).toEqual(['Caption: 16 too many', 'Part 1: 20 too many']);
  expect(overIn(roomOf(undefined, {}, sheet, 'text'))).toEqual([]);
});
