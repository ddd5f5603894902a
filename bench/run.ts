/**
 * The benchmarks: prints a table and writes `bench/results/latest.json`. Every ratio is held against a floor measured in
 * the same run. Needs the built application and Chromium.
 */
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { table, type Line } from './figures';
import { benchAnswers } from './answers';
import { benchArrangements } from './arrangements';
import { benchCounting } from './counting';
import { benchDelivery } from './delivery';
import { benchPages } from './pages';
import { benchQueries } from './queries';

const root = mkdtempSync(join(tmpdir(), 'bimlo-bench-'));
const lines: Line[] = [];
const add = (more: Line[]) => {
  lines.push(...more);
  more.forEach((line) =>
    console.log(`${line.what}: ${line.measured} (${Number(line.value.toFixed(2))} of ${line.limit} ${line.unit})`),
  );
};

try {
  add(await benchCounting());
  add(await benchQueries(root));
  add(await benchPages(root));
  add(await benchAnswers(root));
  add(await benchArrangements(root));
  add(await benchDelivery());
} finally {
  rmSync(root, { recursive: true, force: true });
}
console.log(`\n${table(lines)}\n`);
mkdirSync('bench/results', { recursive: true });
writeFileSync('bench/results/latest.json', `${JSON.stringify(lines, null, 2)}\n`);
process.exit(0);
