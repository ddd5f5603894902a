import { afterAll, beforeAll, expect, it } from 'vitest';
import { READ_AS } from '@/core/reading/readAs';
import { plainlyKept } from '@/core/reading/readSource';
import { closePool, warmPool } from './pool';
import { readSourceFile } from './readFiles';
import { findSame, readingLimitMs, readText } from './readText';
import { longestAway } from './testAway';

beforeAll(async () => {
  warmPool();
  await readSourceFile(new TextEncoder().encode('# Warm'), 'a.md');
});
afterAll(closePool);

const SIZE = 100_000;
/** What ending a thread and starting others from their sources may take on a busy machine, in milliseconds; without limits these texts take minutes. */
const THREADS_MS = 16_000;
/** The event loop may be away so long on a busy machine, in milliseconds; what is read takes many times that. */
const MOST_AWAY_MS = 1_000;
const repeated = (token: string) => token.repeat(SIZE / token.length);
const mixed = (tokens: readonly string[]) =>
  Array.from({ length: SIZE / 3 }, (_, at) => tokens[(at * 7 + at * at * 3) % tokens.length]!).join('');

it.each([
  ['stars', repeated('*a ')],
  ['links that never end', repeated('[a](')],
  ['quotations in one another', repeated('> ')],
  ['underlines', repeated('===\n')],
  ['all at once', mixed(['*a ', '> ', '[', '<', '`', '- ', '\n', '1. ', '**', '](', '| '])],
])(
  'a text of %s is answered within its limit, and holds nobody up',
  async (_what, text) => {
    const start = performance.now();
    const { away } = await longestAway(async () => {
      const file = await readSourceFile(new TextEncoder().encode(text), 'a.md');
      if (!('read' in file)) throw new Error('The encoding of this text was not told');
      const { read } = file;
      expect(read.ok || ['tooMuchWork', 'tooIntricate', 'tooManyParagraphs'].includes(read.refusal.code)).toBe(true);
      // However it is answered as a file, its piece can be opened.
      const kept = plainlyKept(text);
      for (const as of READ_AS)
        expect(await readText({ ...kept, how: { ...kept.how, as } })).toMatchObject({
          as: expect.any(String) as string,
        });
    });
    expect(performance.now() - start).toBeLessThan(2 * readingLimitMs(SIZE) + THREADS_MS);
    expect(away).toBeLessThan(MOST_AWAY_MS);
  },
  60_000,
);

it('texts that have little in common are compared within a limit', async () => {
  const [one, other] = [repeated('a b c d '), repeated('d e b f g ')];
  const { away } = await longestAway(async () => expect(await findSame([[one, other]])).toHaveLength(1));
  expect(away).toBeLessThan(MOST_AWAY_MS);
}, 60_000);
