import type { BadRow, ImportRow } from '@/core/exchange/planImport';
import type { CheckedWrite } from '../posts/checkWrites';
import type { Compared, Differing } from './compareRows';
import type { NamedFiles } from './listings';

/** Something to know of a row. */
export interface RowNote {
  line: number;
  message: string;
}

/** Rows that were checked and may be brought in. */
export interface CheckedRows {
  fresh: ImportRow[];
  changes: { row: ImportRow; notes: readonly string[]; write: CheckedWrite }[];
  /** Rows that tell other steps or extracts of a post that is there. */
  relisted: Differing[];
  /** Rows that tell numbers of a post that is there. */
  counted: Compared['counted'];
  same: number;
  files: NamedFiles;
  notes: RowNote[];
  bad: BadRow[];
}
