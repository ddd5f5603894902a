import { expect, it } from 'vitest';
import { differencesOf } from './differences';

const words = (count: number, seed: number, glue: string) =>
  Array.from({ length: count }, (_, at) => `w${(at * 7_919 + at * at * seed) % 5_000}`).join(glue);

it('shows what differs by words', () =>
  expect(differencesOf('Rings at eight', 'Rings at nine')).toEqual([
    expect.objectContaining({ value: 'Rings at ', added: false, removed: false }),
    expect.objectContaining({ value: 'eight', removed: true }),
    expect.objectContaining({ value: 'nine', added: true }),
  ]));

it.each([' ', '\n'])('of texts that have little in common, set apart by %j, is there at once', (glue) => {
  const [from, to] = [words(15_000, 1, glue), words(15_000, 3, glue)];
  const start = performance.now();
  const differences = differencesOf(from, to);
  expect(performance.now() - start).toBeLessThan(3_000);
  expect(
    differences
      .filter(({ added }) => !added)
      .map(({ value }) => value)
      .join(''),
  ).toBe(from);
  expect(
    differences
      .filter(({ removed }) => !removed)
      .map(({ value }) => value)
      .join(''),
  ).toBe(to);
});
