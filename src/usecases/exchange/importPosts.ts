import type { CsvTable } from '@/core/exchange/csvText';
import type { ImportMapping, ImportPlan, BadRow } from '@/core/exchange/planImport';
import { refuse, type Refusal, type Result } from '@/core/refusal';
import { counted } from '@/core/words';
import { oneBrand } from '@/data/brands/brands';
import { listChannelsOf } from '@/data/brands/channels';
import { rememberMapping } from '@/data/exchange/importedRows';
import { planRows } from '@/data/pool/readFiles';
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
  const planned = await planFile(work, file);
  if (!planned.ok) return planned;
  const plan = planned.value;
  await letPiecesBeRead(work.db, file.brandId, plan.rows);
  return doing(work, async (act) => {
    const place = await placeFor(act, file, act.ids());
    const outcome = await writeRows(act, place, await checkRows(act, place, plan.rows));
    outcome.bad.push(...plan.bad);
    if (file.extent === 'whole') mustBeGood(outcome.bad);
    await keepMapping(act, file);
    await noteExchange(act.tx, work, 'imported', file.brandId, file.fileName);
    return inLines({ ...outcome, changeId: place.undo.changeId });
  });
}

/**
 * Plans a file, all that has to be asked being answered. Not in a transaction, since that may take seconds: what changes until
 * the rows are written is held against when they are.
 */
export async function planFile(work: Pick<Work, 'db' | 'clock'>, file: ImportFile): Promise<Result<ImportPlan>> {
  const { ground } = await groundOf(work.db, file.brandId, work.clock.now());
  const planned = await planRows(file.table, file.mapping, ground);
  if (!planned.ok || planned.value.pastRows === 0 || file.mapping.past !== null) return planned;
  return refuse(
    'askPast',
    `${counted(planned.value.pastRows, 'row is', 'rows are')} in the past. Say whether that was published elsewhere or will be set aside.`,
    'past',
  );
}

/** Where the rows of a file go, as things are now, for somebody who may bring it in. @param changeId by which all of it is undone */
export async function placeFor(act: Doing, file: ImportFile, changeId: string): Promise<ImportPlace> {
  await mustMay(act, 'exchange', file.brandId);
  return {
    brand: await oneBrand(act.tx, file.brandId),
    channels: await listChannelsOf(act.tx, [file.brandId], { archived: true }),
    source: sourceOf(file.fileName),
    mapping: file.mapping,
    undo: { changeId, fileName: file.fileName },
  };
}

/** Refuses a file that has to come whole for its bad rows. */
export function mustBeGood(bad: readonly BadRow[]): void {
  if (bad.length > 0) refused(badRows(bad));
}

function badRows(bad: readonly BadRow[]): Refusal {
  const first = bad.reduce((a, b) => (b.line < a.line ? b : a));
  return {
    code: 'badRows',
    message: `${counted(bad.length, 'row is', 'rows are')} wrong, so nothing was imported. Line ${first.line}: ${first.reason.replace(/\.$/, '')}.`,
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
