import { describe, expect, it } from 'vitest';
import { AS_IT_IS } from '../media/fit';
import { readTitle } from '../pieces/piece';
import { SHIPPED_RULE_SHEETS } from '../rulesheets/shipped';
import { blocksOf, firstBlockOf, isWebLink, type PostContent } from './readiness';

const sheet = (slug: string) => SHIPPED_RULE_SHEETS.find((candidate) => candidate.slug === slug)!;
const png = { mime: 'image/png', bytes: 1000, width: 1120, height: 1120, ...AS_IT_IS };
const post: PostContent = {
  headline: '',
  caption: 'Open tonight',
  hashtags: '',
  link: '',
  format: 'text',
  pictures: [],
};
const codes = (content: PostContent, slug: string) => blocksOf(content, sheet(slug)).map(({ code }) => code);

describe('blocks', () => {
  it('says what the network takes and what this has', () =>
    expect(blocksOf({ ...post, caption: 'x'.repeat(331) }, sheet('pithline'))[0]).toMatchObject({
      code: 'tooLong',
      short: 'caption too long',
      message: 'Caption: Pithline takes 320, this has 331.',
    }));
  it.each([
    ['a fit text', post, 'pithline', []],
    ['no caption', { ...post, caption: ' \n ' }, 'pithline', ['noText']],
    [
      'an image board without title and picture',
      { ...post, format: 'boardPicture' as const, caption: '' },
      'corkwall',
      ['noText', 'noPicture'],
    ],
    ['a photo without picture', { ...post, format: 'photo' as const }, 'glassrow', ['noPicture']],
    ['a carousel of one', { ...post, format: 'carousel' as const, pictures: [png] }, 'glassrow', ['noPicture']],
    ['more pictures than a text takes', { ...post, pictures: [png, png, png, png] }, 'pithline', ['tooManyPictures']],
    [
      'a picture type it does not take',
      { ...post, format: 'photo' as const, pictures: [{ ...png, mime: 'image/gif' }] },
      'glassrow',
      ['pictureType'],
    ],
    [
      'a picture too tall',
      { ...post, format: 'photo' as const, pictures: [{ ...png, height: 2000 }] },
      'glassrow',
      ['pictureShape'],
    ],
    [
      'a picture too small',
      { ...post, format: 'photo' as const, pictures: [{ ...png, width: 500, height: 500 }] },
      'glassrow',
      ['pictureSmall'],
    ],
    [
      'a picture that is cropped, converted and scaled down',
      {
        ...post,
        format: 'photo' as const,
        pictures: [
          {
            ...png,
            mime: 'image/gif',
            height: 2000,
            bytes: 90_000_000,
            crop: { x: 0, y: 0.2, width: 1, height: 0.6 },
            toMime: 'image/jpeg',
            toBytes: 4_000_000,
          },
        ],
      },
      'glassrow',
      [],
    ],
    ['a picture too heavy', { ...post, pictures: [{ ...png, bytes: 4_000_001 }] }, 'pithline', ['pictureSize']],
    ['a format it does not take', { ...post, format: 'newsletter' as const }, 'pithline', ['format']],
    ['too many hashtags', { ...post, hashtags: 'a1 b2 c3 d4 e5 f6 g7 h8' }, 'pithline', ['tooManyHashtags']],
    ['a link that is none', { ...post, link: 'fennelmoor' }, 'pithline', ['badLink']],
  ])('%s', (_name, content, slug, expected) => {
    expect(codes(content as PostContent, slug)).toEqual(expected);
    expect(firstBlockOf(content as PostContent, sheet(slug))?.code).toBe(expected[0]);
  });
});

it.each([
  ['https://a.example', true],
  ['http://127.0.0.1:4310/x', true],
  ['ftp://a.example', false],
  ['https://', false],
  ['https://a b', false],
  ['javascript:alert(1)', false],
])('a web link: %s', (text, expected) => expect(isWebLink(text)).toBe(expected));

describe('a piece', () => {
  it('has a title of more than spaces', () => expect(readTitle(' \u00a0 \n').ok).toBe(false));
  it('keeps a title on one line', () =>
    expect(readTitle('  Moon\n night ')).toEqual({ ok: true, value: 'Moon night' }));
  it('keeps 200 characters', () =>
    expect([readTitle('x'.repeat(200)).ok, readTitle('x'.repeat(201)).ok]).toEqual([true, false]));
});
