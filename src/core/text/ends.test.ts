import { expect, it } from 'vitest';
import { withoutEnd, withoutEnds } from './ends';

it('takes away what stands at an end, and nothing in between', () => {
  expect(['rings?!', '?!', '', 'a?b', '?a'].map((text) => withoutEnd(text, /[?!]/))).toEqual([
    'rings',
    '',
    '',
    'a?b',
    '?a',
  ]);
  expect(['--a-b--', '--', ''].map((text) => withoutEnds(text, /-/))).toEqual(['a-b', '', '']);
});
