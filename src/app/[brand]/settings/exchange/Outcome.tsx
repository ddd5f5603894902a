import type { ImportOutcome } from '@/usecases/exchange/importRows';
import { BadRows } from '../BadRows';
import { RowNotes } from './RowNotes';

/** What came of an import: counts, what is to be known of single rows, and the rows left out. */
export function Outcome({ outcome: { made, changed, same, notes, bad } }: { outcome: ImportOutcome }) {
  return (
    <>
      <p role="status">
        Made {made}, changed {changed}, {same} were as they are.
      </p>
      <RowNotes notes={notes} />
      <BadRows bad={bad} />
    </>
  );
}
