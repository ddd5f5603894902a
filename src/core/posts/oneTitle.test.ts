import { describe, expect, it } from 'vitest';
import { SHIPPED_RULE_SHEETS } from '../rulesheets/shipped';
import type { Stage } from '../stages/stages';
import { hasOwnWords, headlineAfter, headlineFrom } from './oneTitle';

const sheet = (slug: string) => SHIPPED_RULE_SHEETS.find((one) => one.slug === slug)!;
const corkwall = sheet('corkwall');

describe('the title field of a post', () => {
  it('begins as the working title, where there is one and the title fits', () => {
    expect(headlineFrom('Rings', corkwall, 'boardPicture')).toBe('Rings');
    expect(headlineFrom('R'.repeat(190), corkwall, 'boardPicture')).toBe('');
    expect(headlineFrom('Rings', sheet('glassrow'), 'photo')).toBe('');
  });

  it.each<[string, { headline: string; stage: Stage }, { title: string; isOther: boolean }, string]>([
    [
      'follows the working title while it is that',
      { headline: 'Rings', stage: 'drafting' },
      { title: 'Moon', isOther: false },
      'Moon',
    ],
    ['stays, once it is another', { headline: 'Own', stage: 'drafting' }, { title: 'Moon', isOther: false }, 'Own'],
    [
      'stays empty where somebody emptied it',
      { headline: '', stage: 'drafting' },
      { title: 'Moon', isOther: false },
      '',
    ],
    ['begins with another format', { headline: '', stage: 'drafting' }, { title: 'Rings', isOther: true }, 'Rings'],
    [
      'stays where nothing of that changed',
      { headline: 'Rings', stage: 'drafting' },
      { title: 'Rings', isOther: false },
      'Rings',
    ],
    [
      'stays where the title does not fit',
      { headline: 'Rings', stage: 'drafting' },
      { title: 'R'.repeat(190), isOther: false },
      'Rings',
    ],
    ['stays in what is ready', { headline: 'Rings', stage: 'ready' }, { title: 'Moon', isOther: false }, 'Rings'],
  ])('%s', (_name, before, { title, isOther }, headline) =>
    expect(
      headlineAfter({ title: 'Rings', ...before }, { title }, { sheet: corkwall, format: 'boardPicture', isOther }),
    ).toBe(headline),
  );

  it('is kept on a channel that has none', () =>
    expect(
      headlineAfter(
        { title: 'Rings', headline: 'Rings', stage: 'drafting' },
        { title: 'Moon' },
        { sheet: sheet('pithline'), format: 'text', isOther: false },
      ),
    ).toBe('Rings'));
});

it('the working title alone is nothing written, until the post is made', () => {
  const post = { title: 'Rings', headline: 'Rings', caption: '', stage: 'drafting' as Stage };
  expect(hasOwnWords(post)).toBe(false);
  expect(hasOwnWords({ ...post, stage: 'ready' })).toBe(true);
  expect(hasOwnWords({ ...post, headline: 'Thin rings' })).toBe(true);
  expect(hasOwnWords({ ...post, caption: 'Tonight' })).toBe(true);
  expect(hasOwnWords({ ...post, headline: ' ', caption: '\n' })).toBe(false);
});
