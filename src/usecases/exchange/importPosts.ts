import type { CsvTable } from '@/core/exchange/csvText';
import { planImport, type ImportMapping, type ImportPlan, type BadRow } from '@/core/exchange/planImport';
import type { Refusal, Result } from '@/core/refusal';
import { counted } from '@/core/words';
import type { Brand } from '@/data/brands/brands';
import type { Channel } from '@/data/brands/channels';
import { rememberMapping } from '@/data/exchange/importedRows';
import { noteExchange } from './noteExchange';
import { mustMay } from '../rights/mustMay';
import { doing, refused, type Doing, type Work } from '../useCase';
import { groundOf, headerKey, sourceOf } from './compareRows';
import { letPiecesBeRead } from './textsOfPieces';
import { checkRows, writeRows, type ImportOutcome, type ImportPlace } from './importRows';

/** What may come: only the good rows, or the whole file or nothing. */
export type ImportExtent = 'whole' | 'good';

/** A file that a person decided to bring in, as they decided it. */
export interface ImportFile {
  brandId: string;
  table: CsvTable;
  fileName: string;
  mapping: ImportMapping;
  extent: ImportExtent;
}

/**
 * Brings a file of posts in: rows that are known change their post, the others become new posts of new pieces (rows of the
 * same piece share one). The same file again changes nothing. With `whole`, one bad row refuses all. It is one transaction:
 * for files of more than a slice see `longImport`.
 */
export async function bringIn(work: Work, file: ImportFile): Promise<Result<ImportOutcome>> {
  if (file.mapping.columns.extracts !== undefined) {
    const { ground } = await groundOf(work.db, file.brandId, work.clock.now());
    await letPiecesBeRead(work.db, file.brandId, planImport(file.table, file.mapping, ground).rows);
  }
  return doing(work, async (act) => {
    const { place, plan } = await planFile(act, file);
    const outcome = await writeRows(act, place, await checkRows(act, place, plan.rows));
    outcome.bad.push(...plan.bad);
    if (file.extent === 'whole') mustBeGood(outcome.bad);
    await keepMapping(act, file);
    await noteExchange(act.tx, work, 'imported', file.brandId, file.fileName);
    return inLines(outcome);
  });
}

/** Plans a file for somebody who may bring it in, all that has to be asked being answered. */
export async function planFile(act: Doing, file: ImportFile): Promise<{ place: ImportPlace; plan: ImportPlan }> {
  await mustMay(act, 'exchange', file.brandId);
  const { brand, ground, channels } = await groundOf(act.tx, file.brandId, act.now);
  const plan = planImport(file.table, file.mapping, ground);
  if (plan.pastRows > 0 && file.mapping.past === null)
    refused({
      code: 'askPast',
      field: 'past',
      message: `${counted(plan.pastRows, 'row is', 'rows are')} in the past. Say whether that was published elsewhere or will be set aside.`,
    });
  return { place: placeOf(file, brand, channels, act.ids()), plan };
}

/** Where the rows of a file go. @param changeId by which all of it is undone */
export const placeOf = (
  file: ImportFile,
  brand: Brand,
  channels: readonly Channel[],
  changeId: string,
): ImportPlace => ({
  brand,
  channels,
  source: sourceOf(file.fileName),
  mapping: file.mapping,
  undo: { changeId, fileName: file.fileName },
});

/** Refuses a file that has to come whole for its bad rows. */
export function mustBeGood(bad: readonly BadRow[]): void {
  if (bad.length > 0) refused(badRows(bad));
}

function badRows(bad: readonly BadRow[]): Refusal {
  const first = bad.reduce((a, b) => (b.line < a.line ? b : a));
  return {
    code: 'badRows',
    message: `${counted(bad.length, 'row is', 'rows are')} wrong, so nothing was imported. Line ${first.line}: ${first.reason}.`,
  };
}

/** Remembers how the file was meant, for the next one with its header. */
export async function keepMapping(act: Doing, { brandId, table, mapping }: ImportFile): Promise<void> {
  const { columns, channels, stages, dateOrder } = mapping;
  await rememberMapping(act.tx, brandId, headerKey(table.header), { columns, channels, stages, dateOrder });
}

/** An outcome with all it names in the order of the file. */
export const inLines = (outcome: ImportOutcome): ImportOutcome => ({
  ...outcome,
  bad: outcome.bad.toSorted((a, b) => a.line - b.line),
  notes: outcome.notes.toSorted((a, b) => a.line - b.line),
});
