import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Part } from '../captions/compose';
import { AS_IT_IS } from '../media/fit';
import { SHIPPED_RULE_SHEETS } from '../rulesheets/shipped';
import { blocksOf } from './readiness';
import { loosePictures, movePart, partName, partsOf, partsRule } from './parts';

const sheet = (slug: string) => SHIPPED_RULE_SHEETS.find((one) => one.slug === slug)!;
const glassrow = sheet('glassrow');
const pithline = sheet('pithline');
const part = (id: string, text = '', pictureId: string | null = null): Part => ({ id, text, pictureId });
const picture = (id: string) => ({ id, mime: 'image/jpeg', bytes: 90_000, width: 1200, height: 1200, ...AS_IT_IS });
const carousel = (parts: Part[], ids: string[]) => ({
  headline: '',
  caption: 'Three ways',
  hashtags: '',
  link: '',
  format: 'carousel' as const,
  parts,
  pictures: ids.map(picture),
});

describe('the parts of a post', () => {
  it('are none for a format without parts', () =>
    expect(partsOf({ format: 'photo', parts: [part('a', 'x')], pictures: [] }, glassrow)).toEqual([]));

  it('are a slide for each picture of a carousel that none holds, after those that were written', () =>
    expect(partsOf(carousel([part('a', 'One', 'p2')], ['p1', 'p2', 'p3']), glassrow)).toEqual([
      part('a', 'One', 'p2'),
      part('p1', '', 'p1'),
      part('p3', '', 'p3'),
    ]));

  it('lose a picture that was taken away, and keep their text', () =>
    expect(partsOf(carousel([part('a', 'One', 'gone')], []), glassrow)).toEqual([part('a', 'One', null)]));

  it('leave the other pictures of a thread to its first part', () => {
    const thread = {
      format: 'thread' as const,
      parts: [part('a', 'Two', 'p1')],
      pictures: [{ id: 'p1' }, { id: 'p2' }],
    };
    expect(partsOf(thread, pithline)).toEqual([part('a', 'Two', 'p1')]);
    expect(loosePictures(partsOf(thread, pithline), thread.pictures)).toEqual(['p2']);
  });

  it('are counted from 2 after the caption of a thread, from 1 on a carousel', () => {
    expect(partName(partsRule(pithline, 'thread')!, 0)).toBe('part 2');
    expect(partName(partsRule(glassrow, 'carousel')!, 0)).toBe('slide 1');
  });

  it('keep all parts when one is moved, the others in their order', () =>
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.string({ minLength: 1 }), { minLength: 1 }),
        fc.nat(),
        fc.integer(),
        (ids, pick, to) => {
          const parts = ids.map((id) => part(id));
          const moved = ids[pick % ids.length]!;
          const after = movePart(parts, moved, to).map(({ id }) => id);
          expect(after.filter((id) => id !== moved)).toEqual(ids.filter((id) => id !== moved));
          expect(after.indexOf(moved)).toBe(Math.max(0, Math.min(ids.length - 1, to)));
        },
      ),
    ));
});

describe('what a network refuses of parts', () => {
  const codes = (post: Parameters<typeof blocksOf>[0], rules = glassrow) =>
    blocksOf(post, rules).map(({ code, message }) => [code, message]);

  it('is nothing of a carousel whose slides all have their picture', () =>
    expect(codes(carousel([part('a', 'One', 'p1')], ['p1', 'p2']))).toEqual([]));

  it('is a slide without a picture, by its number', () =>
    expect(codes(carousel([part('a', 'One', 'p1'), part('b', 'Two', 'p2'), part('c', 'Three')], ['p1', 'p2']))).toEqual(
      [['partNoPicture', 'Slide 3 has no picture.']],
    ));

  it('is a text over the limit of its slide', () =>
    expect(codes(carousel([part('a', 'x'.repeat(141), 'p1'), part('b', '', 'p2')], ['p1', 'p2']))).toEqual([
      ['partTooLong', 'Slide 1: Glassrow takes 140, this has 141.'],
    ]));

  it('is an empty or too long part of a thread, counted as the network counts', () => {
    const thread = { ...carousel([part('a', ''), part('b', '星'.repeat(161))], []), format: 'thread' as const };
    expect(codes(thread, pithline)).toEqual([
      ['partNoText', 'Part 2 says nothing.'],
      ['partTooLong', 'Part 3: Pithline takes 320, this has 322.'],
    ]);
  });

  it('is more parts than it takes, the caption being the first of a thread', () => {
    const thread = (count: number) => ({
      ...carousel(
        Array.from({ length: count }, (_, index) => part(`${index}`, 'On it goes')),
        [],
      ),
      format: 'thread' as const,
    });
    expect(codes(thread(16), pithline)).toEqual([]);
    expect(codes(thread(17), pithline)).toEqual([
      ['tooManyParts', 'A thread on Pithline takes 17 parts, this has 18.'],
    ]);
  });

  it('is nothing of the texts another format has', () => {
    const benchfeed = sheet('benchfeed');
    const post = { ...carousel([], []), format: 'text' as const, firstComment: 'x'.repeat(931) };
    expect(codes(post, benchfeed)).toEqual([['tooLong', 'First comment: Benchfeed takes 930, this has 931.']]);
    expect(codes({ ...post, format: 'article', headline: 'A headline' }, benchfeed)).toEqual([]);
  });
});
