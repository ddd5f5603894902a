import { describe, expect, it } from 'vitest';

/*
 * Examples in comments are run: each is a call, and behind `//` what it gives as JavaScript writes it, with an explanation behind a
 * colon or comma where it wants one.
 */

const modules = import.meta.glob<Record<string, unknown>>(['./**/*.ts', '!./**/*.test.ts']);
const sources = import.meta.glob<string>(['./**/*.ts', '!./**/*.test.ts'], {
  query: '?raw',
  import: 'default',
  eager: true,
});

interface Example {
  file: string;
  call: string;
  told: string;
}

/** The examples of a file: behind `@example` on its line, or each on a line of its own below it. */
function examplesIn([file, source]: [string, string]): Example[] {
  return source
    .split('@example')
    .slice(1)
    .map((rest) => rest.split(/ \* @|\*\//)[0]!)
    .flatMap((body) =>
      body
        .split('\n')
        .map((line) => line.replace(/^\s*\*?\s*/, '').trim())
        .filter((line) => line !== '')
        .map((line) => {
          const at = line.lastIndexOf(' // ');
          return { file, call: line.slice(0, at), told: line.slice(at + 4) };
        }),
    );
}

const run = (code: string, known: Record<string, unknown>): unknown =>
  (new Function(...Object.keys(known), `return (${code});`) as (...values: unknown[]) => unknown)(
    ...Object.values(known),
  );

/** What is told, without the explanation behind it. */
function valueTold(told: string): unknown {
  const ends = [told.length, ...[...told.matchAll(/[:,] /g)].map(({ index }) => index).reverse()];
  for (const end of ends) {
    try {
      return run(told.slice(0, end), {});
    } catch (error) {
      if (!(error instanceof SyntaxError || error instanceof ReferenceError)) throw error;
    }
  }
  throw new Error(`“${told}” is nothing that JavaScript writes`);
}

const examples = Object.entries(sources).flatMap(examplesIn);

describe('examples in comments', () => {
  it('are found', () => expect(examples.length).toBeGreaterThan(40));
  it.each(examples)('$file: $call', async ({ file, call, told }) => {
    const exported = await modules[file]!();
    expect(run(call, exported)).toEqual(valueTold(told));
  });
});
