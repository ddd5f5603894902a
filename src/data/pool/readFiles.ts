import type { CalendarFile, DaySpan } from '@/core/exchange/calendarFile';
import type { CsvTable } from '@/core/exchange/csvText';
import { unfoldPlan, type FoldedPlan } from '@/core/exchange/foldedPlan';
import { planImport, type ImportGround, type ImportMapping, type ImportPlan } from '@/core/exchange/planImport';
import { accept, refuse, type Result } from '@/core/refusal';
import type { Zone } from '@/core/time/plan';
import { inPool, TooMuchWorkError } from './pool';
import type { ReadSourceFile } from './tasks';
import { readingLimitMs } from './readText';

/** How long a file may take to be read, in milliseconds. */
const READ_LIMIT_MS = 10_000;
/** How long a file may take to be planned, in milliseconds. */
const PLAN_LIMIT_MS = 30_000;
/** Characters (UTF-16 units) of a short table. */
const SHORT_LENGTH = 50_000;
/** How long the first reading of a calendar file may take before the event it is at is left out. */
const FIRST_READING_MS = 5_000;
/** How long the next readings may take, and how many there are at most. */
const NEXT_READING_MS = 2_000;
const EVENTS_LEFT_OUT = 2;

const tooMuch = ({ kind }: TooMuchWorkError, limitMs = READ_LIMIT_MS): Result<never> =>
  refuse(
    'tooMuchWork',
    kind === 'time'
      ? `The file takes longer than ${limitMs / 1_000} seconds to read, so it was left alone. Split it, or save it again.`
      : 'The file takes more memory to read than Bimlo gives it, so it was left alone. Split it, or save it again.',
    'file',
  );

/** Reads a CSV file on a thread of the pool. */
export async function readCsvFile(bytes: Uint8Array): Promise<Result<CsvTable>> {
  try {
    return await inPool<Result<CsvTable>>('csvFile', { bytes }, READ_LIMIT_MS);
  } catch (error) {
    if (error instanceof TooMuchWorkError) return tooMuch(error);
    throw error;
  }
}

/** Plans what a file of posts brings in: a short one at once, a long one on a thread of the pool. */
export async function planRows(
  table: CsvTable,
  mapping: ImportMapping,
  ground: ImportGround,
): Promise<Result<ImportPlan>> {
  if (isShort(table)) return accept(planImport(table, mapping, ground));
  try {
    return accept(unfoldPlan(await inPool<FoldedPlan>('importPlan', { table, mapping, ground }, PLAN_LIMIT_MS)));
  } catch (error) {
    if (error instanceof TooMuchWorkError) return tooMuch(error, PLAN_LIMIT_MS);
    throw error;
  }
}

/** Whether a table is planned in some milliseconds, whatever stands in it. */
function isShort({ rows }: CsvTable): boolean {
  let left = SHORT_LENGTH;
  return rows.every(({ cells }) => (left -= cells.reduce((sum, cell) => sum + cell.length, 0)) >= 0);
}

/**
 * Reads a calendar file on a thread of the pool. An event whose rule takes too long to follow is left out and named; the
 * others are read.
 */
export async function readDatesFile(bytes: Uint8Array, span: DaySpan, zone: Zone): Promise<Result<CalendarFile>> {
  const at = new Int32Array(new SharedArrayBuffer(4));
  const leftOut: number[] = [];
  for (;;) {
    at[0] = -1;
    try {
      const given = { bytes, span, zone, leftOut, at };
      const limitMs = leftOut.length === 0 ? FIRST_READING_MS : NEXT_READING_MS;
      return await inPool<Result<CalendarFile>>('calendarFile', given, limitMs);
    } catch (error) {
      if (!(error instanceof TooMuchWorkError)) throw error;
      if (at[0] < 0 || leftOut.includes(at[0]) || leftOut.length >= EVENTS_LEFT_OUT) return tooMuch(error);
      leftOut.push(at[0]);
    }
  }
}

/**
 * Reads a text for a piece on a thread of the pool: subtitles, a page, Markdown or plain text.
 *
 * @param encoding that somebody chose for it; null for the one that it shows
 */
export async function readSourceFile(
  bytes: Uint8Array,
  name: string,
  encoding: string | null = null,
): Promise<ReadSourceFile> {
  try {
    return await inPool<ReadSourceFile>('sourceFile', { bytes, name, encoding }, readingLimitMs(bytes.length));
  } catch (error) {
    if (!(error instanceof TooMuchWorkError)) throw error;
    const refused = refuse(
      'tooMuchWork',
      'This text is too intricate to be read in time, so it was left alone. Save it as plain text.',
      'file',
    );
    return { read: refused };
  }
}
