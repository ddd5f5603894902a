/**
 * The benchmarks, or those of them that are named: prints a table and, after all of them, writes
 * `bench/results/latest.json`. Every ratio is held against a floor measured in the same run. Needs the built application and
 * Chromium.
 */
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { table, type Line } from './figures';
import { benchAnswers } from './answers';
import { benchArrangements } from './arrangements';
import { benchCounting } from './counting';
import { benchDelivery } from './delivery';
import { benchDurability } from './durability';
import { benchFeed } from './feed';
import { benchFelt } from './felt';
import { benchMaking } from './making';
import { benchPages } from './pages';
import { benchWriting } from './writing';
import { benchQueries } from './queries';

const root = mkdtempSync(join(tmpdir(), 'bimlo-bench-'));

/** In this order: `pages`, `answers` and `felt` read what `queries` made. */
const BENCHES = {
  counting: benchCounting,
  queries: () => benchQueries(root),
  pages: () => benchPages(root),
  answers: () => benchAnswers(root),
  arrangements: () => benchArrangements(root),
  felt: () => benchFelt(root),
  making: () => benchMaking(root),
  writing: () => benchWriting(root),
  feed: () => benchFeed(root),
  delivery: benchDelivery,
  durability: benchDurability,
};

const asked = process.argv.slice(2);
const unknown = asked.find((name) => !(name in BENCHES));
if (unknown !== undefined) {
  console.error(`There is no benchmark “${unknown}”. There are: ${Object.keys(BENCHES).join(', ')}.`);
  process.exit(1);
}
const isAsked = (name: string): boolean =>
  asked.length === 0 ||
  asked.includes(name) ||
  (name === 'queries' && ['pages', 'answers', 'felt'].some((one) => asked.includes(one)));

const lines: Line[] = [];
const brokenOff: string[] = [];
try {
  for (const [name, bench] of Object.entries(BENCHES)) {
    if (!isAsked(name)) continue;
    const more = await bench().catch((error: unknown) => {
      // One that breaks off does not cost the others their figures; it fails the run at its end.
      console.error(`“${name}” broke off.`, error);
      brokenOff.push(name);
      return [];
    });
    lines.push(...more);
    more.forEach((line) =>
      console.log(`${line.what}: ${line.measured} (${Number(line.value.toFixed(2))} of ${line.limit} ${line.unit})`),
    );
  }
} finally {
  rmSync(root, { recursive: true, force: true });
}
console.log(`\n${table(lines)}\n`);
if (brokenOff.length > 0) console.error(`Broke off: ${brokenOff.join(', ')}.`);
if (asked.length === 0 && brokenOff.length === 0) {
  mkdirSync('bench/results', { recursive: true });
  writeFileSync('bench/results/latest.json', `${JSON.stringify(lines, null, 2)}\n`);
}
process.exit(brokenOff.length > 0 ? 1 : 0);
