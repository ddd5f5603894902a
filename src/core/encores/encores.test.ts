import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addMs } from '../time/plan';
import { groupBy } from '../group';
import { findEncores, type PastPost, type Peers } from './encores';

const NOW = '2026-11-23T12:00:00.000Z';
const daysAgo = (days: number) => addMs(NOW, -days * 86_400_000);

const past = (id: string, days: number, rate: number | null, more: Partial<PastPost> = {}): PastPost => ({
  ...{ id, rootId: id, channelId: 'GR', format: 'photo', publishedAt: daysAgo(days), lasting: '' },
  rate,
  ...more,
});
const peersOf = (posts: readonly PastPost[]): Peers[] =>
  [...groupBy(posts, ({ channelId, format }) => `${channelId} ${format}`).values()].map((group) => ({
    channelId: group[0]!.channelId,
    format: group[0]!.format,
    rates: group.flatMap(({ rate }) => rate ?? []).sort((one, other) => one - other),
  }));
const found = (posts: readonly PastPost[]) => findEncores(posts, peersOf(posts), 60, NOW);
const idsOf = (posts: readonly { id: string }[]) => posts.map(({ id }) => id);

/** Five posts of 120 days ago that did worse and worse. */
const five = [0.5, 0.4, 0.3, 0.2, 0.1].map((rate, at) => past(`p${at}`, 120, rate));

describe('what is worth doing again', () => {
  it('is what did better than the middle of its channel and format, the best first', () => {
    const { ranked, unranked } = found(five);
    expect(ranked.map(({ id, percentile, score }) => [id, percentile, score])).toEqual([
      ['p0', 1, 1],
      ['p1', 0.75, 0.75],
    ]);
    expect(unranked).toEqual([]);
  });

  it('counts more the older it is, from nothing at the least age to all at twice that', () => {
    const scores = (days: number) => found([past('a', days, 0.9), ...five]).ranked.find(({ id }) => id === 'a')?.score;
    expect(scores(59)).toBeUndefined();
    expect(scores(60)).toBeUndefined();
    expect(scores(90)).toBe(0.5);
    expect(scores(120)).toBe(1);
    expect(scores(400)).toBe(1);
  });

  it('says nothing of how well with fewer than five to compare; those stand apart, the oldest first', () => {
    const { ranked, unranked } = found([past('new', 61, 0.9), past('old', 300, 0.1), past('none', 100, null)]);
    expect(ranked).toEqual([]);
    expect(idsOf(unranked)).toEqual(['old', 'none', 'new']);
    expect(unranked[0]).toMatchObject({ percentile: null, among: 2, ageDays: 300 });
  });

  it('compares only with its own channel and format', () => {
    const elsewhere = past('x', 200, 0.01, { format: 'carousel' });
    expect(idsOf(found([...five, elsewhere]).unranked)).toEqual(['x']);
  });

  it('counts the age from the last time it or it again went out, and shows the one that did best', () => {
    const again = past('again', 70, 0.05, { rootId: 'p0' });
    const [first] = found([...five, again]).ranked.filter(({ rootId }) => rootId === 'p0');
    expect(first).toMatchObject({ id: 'p0', ageDays: 70 });
    expect(first!.score).toBeCloseTo(1 / 6);
    expect(idsOf(found([...five, past('again', 3, 0.05, { rootId: 'p0' })]).ranked)).not.toContain('p0');
  });

  it('is the post of a family that did well, though another of it has a higher percentile in a format that did all the same', () => {
    const same = Array.from({ length: 9 }, (_, at) => past(`s${at}`, 200, at < 4 ? 0.1 : 0.2, { format: 'text' }));
    const family = same.map((post) => (post.id === 's8' ? { ...post, rootId: 'p2' } : post));
    const six = [...five, past('p5', 120, 0.05)];
    const [first] = found([...family, ...six]).ranked.filter(({ rootId }) => rootId === 'p2');
    expect(first).toMatchObject({ id: 'p2', percentile: 0.6 });
  });

  it('is nothing where all did the same', () =>
    expect(found(five.map((post) => ({ ...post, rate: 0.2 }))).ranked).toEqual([]));

  it('has percentiles as counting each pair gives them', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 9 }), { minLength: 5, maxLength: 40 }), (rates) => {
        const posts = rates.map((rate, at) => past(`p${at}`, 200, rate));
        const { ranked } = found(posts);
        for (const { id, percentile } of ranked) {
          const own = rates[Number(id.slice(1))]!;
          const others = rates.filter((_rate, at) => `p${at}` !== id);
          const counted = others.reduce((sum, rate) => sum + (rate < own ? 1 : rate === own ? 0.5 : 0), 0);
          expect(percentile).toBeCloseTo(counted / others.length);
        }
        const sorted = [...rates].sort((one, other) => one - other);
        const middle = (sorted[(rates.length - 1) >> 1]! + sorted[rates.length >> 1]!) / 2;
        expect(ranked).toHaveLength(rates.filter((rate) => rate > middle).length);
      }),
    );
  });
});
