import { describe, expect, it } from 'vitest';
import { AS_IT_IS } from '../media/fit';
import { SHIPPED_RULE_SHEETS } from '../rulesheets/shipped';
import { differsFromParcel, makeParcel, measuresOf } from './parcel';

describe('a parcel', () => {
  const sheet = SHIPPED_RULE_SHEETS.find((candidate) => candidate.slug === 'pithline')!;
  const picture = {
    sha256: 'a'.repeat(64),
    mime: 'image/png',
    alt: 'The dome',
    fileName: 'dome.png',
    bytes: 10,
    width: 900,
    height: 900,
    ...AS_IT_IS,
  };
  const post = {
    headline: '',
    caption: 'Open',
    hashtags: 'Sky',
    link: 'https://a.example',
    format: 'text' as const,
    pictures: [picture],
  };
  const parcel = () => makeParcel(post, { account: '@moor', sheet });

  it('holds the composed text', () =>
    expect(parcel()).toMatchObject({
      network: 'pithline',
      account: '@moor',
      texts: [{ name: 'caption', text: 'Open\n\nhttps://a.example\n\n#Sky' }],
      hashtags: ['#Sky'],
    }));
  it.each([
    ['nothing', {}, false],
    ['the caption', { caption: 'Shut' }, true],
    ['hashtags', { hashtags: '' }, true],
    ['the link', { link: '' }, true],
    ['the format', { format: 'photo' as const }, true],
    ['an alt text', { pictures: [{ ...picture, alt: 'Dome' }] }, true],
    ['a picture less', { pictures: [] }, true],
    ['a crop', { pictures: [{ ...picture, crop: { x: 0, y: 0, width: 0.5, height: 1 } }] }, true],
    ['the place of a crop', { pictures: [{ ...picture, crop: { x: 0.1, y: 0, width: 0.5, height: 1 } }] }, true],
    ['the type it is converted to', { pictures: [{ ...picture, toMime: 'image/jpeg' }] }, true],
  ])('differs when one changes %s', (_name, change, expected) =>
    expect(differsFromParcel({ ...post, ...change }, parcel())).toBe(expected),
  );

  it('differs by the place of a crop, which it was made with', () => {
    const cropped = (x: number) => ({ ...post, pictures: [{ ...picture, crop: { x, y: 0, width: 0.5, height: 1 } }] });
    const left = makeParcel(cropped(0), { account: '@moor', sheet });
    expect([differsFromParcel(cropped(0), left), differsFromParcel(cropped(0.5), left)]).toEqual([false, true]);
  });

  it('holds each picture as it leaves, and the link without the blanks around it', () => {
    const rendered = { mime: 'image/jpeg', bytes: 5, width: 90, height: 90 };
    const made = makeParcel(
      { ...post, link: ' https://a.example ', pictures: [{ ...picture, id: 'p', rendered }, picture] },
      { account: '@moor', sheet },
    );
    const { crop, toMime, toBytes, ...measured } = picture;
    const recipe = { crop, toMime, toBytes };
    expect(made.pictures).toEqual([
      { ...measured, id: 'p', durationMs: undefined, recipe, rendered },
      { ...measured, id: undefined, durationMs: undefined, recipe },
    ]);
    expect([made.link, 'parts' in made]).toEqual(['https://a.example', false]);
  });

  it('holds no hashtags where a network takes none', () =>
    expect(makeParcel(post, { account: '@moor', sheet: { ...sheet, hashtagLimit: 0 } }).hashtags).toEqual([]));
});

describe('a parcel of parts', () => {
  const sheet = SHIPPED_RULE_SHEETS.find(({ formats }) => formats.some(({ format }) => format === 'carousel'))!;
  const picture = (id: string) => ({
    ...AS_IT_IS,
    ...{
      id,
      sha256: id.repeat(64),
      mime: 'image/png',
      alt: id,
      fileName: `${id}.png`,
      bytes: 10,
      width: 900,
      height: 900,
    },
  });
  const post = {
    headline: '',
    caption: 'Three slides',
    hashtags: '',
    link: '',
    format: 'carousel' as const,
    pictures: [picture('a'), picture('b'), picture('c')],
    parts: [
      { id: '1', text: 'First', pictureId: 'c' },
      { id: '2', text: 'Second', pictureId: 'a' },
      { id: '3', text: 'Third', pictureId: null },
    ],
  };
  const made = () => makeParcel(post, { account: '@moor', sheet });

  it('has its pictures in the order of the parts, each once, and those of no part after them', () => {
    const parcel = made();
    expect(parcel.pictures.map(({ id }) => id)).toEqual(['c', 'a', 'b']);
    expect(parcel.parts?.slice(0, 3)).toEqual([
      { text: 'First', picture: 0 },
      { text: 'Second', picture: 1 },
      { text: 'Third', picture: null },
    ]);
    expect(differsFromParcel(post, parcel)).toBe(false);
  });

  it('differs when one changes the order of its parts, or the words of one', () => {
    expect(differsFromParcel({ ...post, parts: [...post.parts].reverse() }, made())).toBe(true);
    expect(differsFromParcel({ ...post, parts: post.parts.map((part) => ({ ...part, text: 'x' })) }, made())).toBe(
      true,
    );
  });
});

describe('a picture of a parcel', () => {
  const kept = { id: 'p', sha256: 'a'.repeat(64), mime: 'image/png', alt: '', fileName: 'dome.png', bytes: 10 };
  it('is measured as it left', () => {
    const recipe = { crop: { x: 0, y: 0, width: 0.5, height: 1 }, toMime: 'image/jpeg', toBytes: 5 };
    expect(measuresOf({ ...kept, width: 900, height: 600, durationMs: 40, recipe })).toEqual({
      ...{ id: 'p', mime: 'image/png', bytes: 10, width: 900, height: 600, durationMs: 40, rendered: undefined },
      ...recipe,
    });
  });
  it('has the size 0 and no recipe where neither was kept', () =>
    expect(measuresOf(kept as Parameters<typeof measuresOf>[0])).toMatchObject({ width: 0, height: 0, ...AS_IT_IS }));
});
