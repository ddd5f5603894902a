import { expect, it } from 'vitest';
import { longestAway } from './testAway';

const hold = (ms: number) => {
  const until = performance.now() + ms;
  while (performance.now() < until);
};

it('a loop that is held up is seen to be, one that only waits is not', async () => {
  const waited = await longestAway(() => new Promise((resolve) => setTimeout(resolve, 400)));
  expect(waited.away).toBeLessThan(200);
  const held = async () => {
    await new Promise((resolve) => setTimeout(resolve, 50));
    hold(600);
    await new Promise((resolve) => setTimeout(resolve, 50));
    return 'done';
  };
  const { away, done } = await longestAway(held);
  expect(away).toBeGreaterThan(300);
  expect(done).toBe('done');
});
