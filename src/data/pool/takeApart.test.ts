import { afterAll, describe, expect, it } from 'vitest';
import { plainlyKept } from '@/core/reading/readSource';
import { closePool } from './pool';
import { takeApartInPool } from './takeApart';

afterAll(closePool);

const LINES = [
  'Every fifteen years the planet tips far enough that we look along the plane of its rings.',
  'The log book of the observatory holds sixty years of evenings in pencil.',
  'Children count the moons that the glare of the rings hides in other years.',
];
const given = (sentences: number) => ({
  kept: plainlyKept(
    Array.from({ length: sentences }, (_, at) => LINES[at % 3]!.replace('the', `the ${at * 7}th`)).join(' '),
  ),
  ...{ taken: [], takenClips: [] },
});

describe('a long text on a thread', () => {
  it('says how far it is, and ends where it is called off', async () => {
    const shares: number[] = [];
    const ending = new AbortController();
    const apart = takeApartInPool(given(6_000), {
      signal: ending.signal,
      onShare: (share) => {
        shares.push(share);
        ending.abort();
      },
    });
    expect(await apart).toMatchObject({ ok: false, refusal: { code: 'stopped' } });
    expect(shares).toHaveLength(1);
    expect(shares[0]).toBeLessThan(1);
  }, 60_000);

  it('is not begun where it was called off before, and the threads go on with what comes next', async () => {
    const before = await takeApartInPool(given(3), { signal: AbortSignal.abort() });
    expect(before).toMatchObject({ ok: false, refusal: { code: 'stopped' } });
    const after = await takeApartInPool(given(30));
    expect(after.ok && after.value.sentences).toHaveLength(30);
  }, 60_000);
});
