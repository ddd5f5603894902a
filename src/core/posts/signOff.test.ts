import { describe, expect, it } from 'vitest';
import { makeParcel } from '../delivery/parcel';
import { AS_IT_IS } from '../media/fit';
import { SHIPPED_RULE_SHEETS } from '../rulesheets/shipped';
import { signOffState, type SignOff } from './signOff';
import { wantsOf } from './wants';

const sheet = SHIPPED_RULE_SHEETS.find(({ slug }) => slug === 'pithline')!;
const picture = {
  id: 'a',
  sha256: '0'.repeat(64),
  alt: 'The dome',
  fileName: 'dome.jpg',
  mime: 'image/jpeg',
  bytes: 1000,
  width: 1000,
  height: 1000,
  ...AS_IT_IS,
};
const post = {
  headline: '',
  caption: 'Open tonight',
  hashtags: '#dome',
  link: '',
  format: 'text' as const,
  pictures: [picture],
};
const given: SignOff = { by: 'p', at: '2026-11-23T09:00:00.000Z', copy: makeParcel(post, { account: '@m', sheet }) };

describe('sign-off', () => {
  it.each([
    ['is not asked for', false, null, post, 'notAsked'],
    ['is missing', true, null, post, 'missing'],
    ['is given', true, given, post, 'given'],
    ['is out of date after a word', true, given, { ...post, caption: 'Open today' }, 'outdated'],
    ['is out of date after a hashtag', true, given, { ...post, hashtags: '' }, 'outdated'],
    ['is out of date after another format', true, given, { ...post, format: 'thread' as const }, 'outdated'],
    ['is out of date without its picture', true, given, { ...post, pictures: [] }, 'outdated'],
    [
      'is out of date with another crop',
      true,
      given,
      { ...post, pictures: [{ ...picture, crop: { x: 0, y: 0, width: 1, height: 0.5 } }] },
      'outdated',
    ],
    ['holds again when the words are taken back', true, given, { ...post, caption: 'Open tonight' }, 'given'],
  ] as const)('%s', (_name, isAsked, signOff, now, expected) =>
    expect(signOffState(isAsked, signOff, now)).toBe(expected),
  );

  it.each([
    ['notAsked', []],
    ['given', []],
    ['missing', ['Nobody has signed it off.']],
    ['outdated', ['It changed since it was signed off.']],
  ] as const)('as a want: %s', (signOff, expected) =>
    expect(wantsOf({ pictures: [], neededSteps: [], signOff, unread: 0 }, []).map(({ message }) => message)).toEqual(
      expected,
    ),
  );

  it('is waived like every want', () =>
    expect(wantsOf({ pictures: [], neededSteps: [], signOff: 'missing', unread: 0 }, [{ key: 'signOff' }])).toEqual(
      [],
    ));
});
