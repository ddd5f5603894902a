import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, it } from 'vitest';

const SRC = join(import.meta.dirname, '../..');
const sheets = (readdirSync(SRC, { recursive: true }) as string[]).filter((path) => path.endsWith('.scss'));

/** Distances, apart from those worked out: `margin: 4px 0;`. */
const DISTANCE = /^ *(?:margin|padding|(?:row-|column-)?gap)(?:-[a-z-]+)?: ([^;]+);/gm;
/** A hairline is no distance. */
const OFF_SCALE = /(?<![\w.-])-?(?!0px|1px)\d+px\b/;

it.each(sheets)('%s keeps to the steps of distances in `_ground.scss`', (path) => {
  const distances = [...readFileSync(join(SRC, path), 'utf8').matchAll(DISTANCE)].map(([, value]) => value!);
  expect(distances.filter((value) => !value.includes('calc(') && OFF_SCALE.test(value))).toEqual([]);
});

it('finds the sheets, and would tell a distance off the scale', () => {
  expect(sheets.length).toBeGreaterThan(15);
  expect(OFF_SCALE.test('0 10px')).toBe(true);
  expect(OFF_SCALE.test('1px 0 var(--space-2)')).toBe(false);
});
