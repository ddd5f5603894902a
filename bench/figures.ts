/** A line of the benchmark's table. */
export interface Line {
  what: string;
  /** As measured, with its unit. */
  measured: string;
  /** The floor it is held against, with its unit; empty where the limit is absolute. */
  floor: string;
  /** What is compared with the limit. */
  value: number;
  limit: number;
  unit: string;
}

/** Runs something several times, in turn with its floor, and gives the medians in milliseconds. */
export async function compare(
  work: () => unknown,
  floor: () => unknown,
  { warmUps = 3, rounds = 15 } = {},
): Promise<{ workMs: number; floorMs: number }> {
  for (let n = 0; n < warmUps; n++) {
    await work();
    await floor();
  }
  const workMs: number[] = [];
  const floorMs: number[] = [];
  for (let n = 0; n < rounds; n++) {
    workMs.push(await timed(work));
    floorMs.push(await timed(floor));
  }
  return { workMs: percentile(workMs, 50), floorMs: percentile(floorMs, 50) };
}

/** Milliseconds that something takes. */
export async function timed(work: () => unknown): Promise<number> {
  const start = performance.now();
  await work();
  return performance.now() - start;
}

/** The value that so many percent of the values do not exceed. */
export function percentile(values: readonly number[], percent: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.ceil((percent / 100) * sorted.length) - 1)] ?? NaN;
}

/** A ratio to a floor, as a line. */
export const ratioLine = (what: string, workMs: number, floorMs: number, limit: number): Line => ({
  what,
  measured: `${workMs.toFixed(2)} ms`,
  floor: `${floorMs.toFixed(2)} ms`,
  value: workMs / floorMs,
  limit,
  unit: '×',
});

/** A figure with an absolute limit, as a line. */
export const figureLine = (what: string, value: number, limit: number, unit: string): Line => ({
  what,
  measured: `${Number(value.toFixed(1))} ${unit}`,
  floor: '',
  value,
  limit,
  unit,
});

/** The table for people. */
export function table(lines: readonly Line[]): string {
  const rows = lines.map((line) => [
    line.what,
    line.measured,
    line.floor,
    `${Number(line.value.toFixed(2))} ${line.unit}`,
    `${line.limit} ${line.unit}`,
    line.value <= line.limit ? 'within' : 'OVER',
  ]);
  const all = [['what', 'measured', 'floor', 'value', 'limit', ''], ...rows];
  const widths = all[0]!.map((_, column) => Math.max(...all.map((row) => row[column]!.length)));
  return all.map((row) => `| ${row.map((cell, column) => cell.padEnd(widths[column]!)).join(' | ')} |`).join('\n');
}
