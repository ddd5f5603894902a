import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dealPictures, type WantsPictures } from './dealPictures';

const post = (key: string, channelId: string, least: number, most: number): WantsPictures => ({
  ...{ key, channelId, least, most },
});
const dealt = (posts: WantsPictures[], pictures: number[]) => Object.fromEntries(dealPictures(posts, pictures));

describe('the pictures of a set', () => {
  it('are dealt in order, a carousel leaving one for each post after it', () => {
    const posts = [
      post('carousel', 'GR', 2, 12),
      post('one', 'GR', 1, 1),
      post('two', 'GR', 1, 1),
      post('board', 'CW', 1, 1),
    ];
    expect(dealt(posts, [1, 2, 3, 4, 5, 6])).toEqual({ carousel: [1, 2, 3, 4], one: [5], two: [6], board: [1] });
  });

  it('go first to whoever comes first where there are too few', () => {
    const posts = [post('carousel', 'GR', 2, 12), post('one', 'GR', 1, 1)];
    expect(dealt(posts, [1, 2])).toEqual({ carousel: [1, 2], one: [] });
    expect(dealt(posts, [1])).toEqual({ carousel: [], one: [1] });
  });

  it('stand once on each channel, in their order, never more or fewer than a post takes', () => {
    const some = fc.array(
      fc.record({
        channelId: fc.constantFrom('a', 'b'),
        least: fc.integer({ min: 0, max: 3 }),
        more: fc.integer({ min: 0, max: 5 }),
      }),
      { maxLength: 8 },
    );
    fc.assert(
      fc.property(some, fc.integer({ min: 0, max: 20 }), (asked, count) => {
        const posts = asked.map(({ channelId, least, more }, at) =>
          post(`${at}`, channelId, least, Math.max(1, least + more)),
        );
        const pictures = Array.from({ length: count }, (_one, at) => at);
        const given = dealPictures(posts, pictures);
        for (const channelId of ['a', 'b']) {
          const all = posts.filter((one) => one.channelId === channelId).flatMap(({ key }) => given.get(key)!);
          expect(all).toEqual(pictures.slice(0, all.length));
        }
        for (const { key, least, most } of posts) {
          const own = given.get(key)!.length;
          expect(own === 0 || (own >= least && own <= most)).toBe(true);
        }
      }),
    );
  });
});
