import { guessColumns } from '@/core/exchange/columns';
import type { CsvTable } from '@/core/exchange/csvText';
import { startMapping, type ImportMapping, type ImportPlan } from '@/core/exchange/planImport';
import { accept, type Result } from '@/core/refusal';
import type { Db } from '@/data/database/db';
import { maybeMapping } from '@/data/exchange/importedRows';
import { planRows } from '@/data/pool/readFiles';
import type { RowNote } from './checkedRows';
import { textsOfPieces } from './textsOfPieces';
import { compareRows, groundOf, headerKey, sourceOf } from './compareRows';

/** A plan with what it would do. */
export interface ImportPreview extends Omit<ImportPlan, 'rows'> {
  /** Rows that can be brought in. */
  good: number;
  header: string[];
  /** The first rows as they stand in the file. */
  sample: string[][];
  /** Rows that become new posts, change one that is there, or are as they are. */
  fresh: number;
  changed: number;
  same: number;
  /** What to know of rows that come in all the same. */
  notes: RowNote[];
}

const SAMPLE_ROWS = 6;

/** Shows what a file would bring in, with a mapping that was guessed, used before, or is being tried. */
export async function previewImport(
  db: Db,
  brandId: string,
  now: string,
  table: CsvTable,
  fileName: string,
  tried: ImportMapping | null,
): Promise<Result<ImportPreview>> {
  const { brand, ground } = await groundOf(db, brandId, now);
  const guessed = guessColumns(
    table.header,
    table.rows.slice(0, 200).map(({ cells }) => cells),
    ground,
  );
  const mapping = tried ?? startMapping(table, guessed, await maybeMapping(db, brandId, headerKey(table.header)));
  const planned = await planRows(table, mapping, ground);
  if (!planned.ok) return planned;
  const { rows, ...plan } = planned.value;
  const { fresh, differing, counted, same, lost, notes } = await compareRows(
    db,
    brand,
    sourceOf(fileName),
    rows,
    textsOfPieces(db),
  );
  return accept({
    ...plan,
    good: rows.length,
    bad: [...plan.bad, ...lost].sort((a, b) => a.line - b.line),
    header: table.header,
    sample: table.rows.slice(0, SAMPLE_ROWS).map(({ cells }) => cells),
    fresh: fresh.length,
    changed: new Set([...differing, ...counted].map(({ row }) => row)).size,
    same: same.length,
    notes,
  });
}
