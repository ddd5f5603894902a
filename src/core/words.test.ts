import { expect, it } from 'vitest';
import { capital, counted, withArticle } from './words';

it('a number stands with its noun in the right form', () => {
  expect([0, 1, 2, 1_200].map((count) => counted(count, 'post'))).toEqual([
    '0 posts',
    '1 post',
    '2 posts',
    '1,200 posts',
  ]);
  expect([1, 3].map((count) => counted(count, 'entry', 'entries'))).toEqual(['1 entry', '3 entries']);
});

it('a noun stands with its article, a sentence with its capital', () => {
  expect(['talk', 'episode'].map(withArticle)).toEqual(['a talk', 'an episode']);
  expect(capital('out')).toBe('Out');
});
