import Link from 'next/link';
import type { ImportOutcome } from '@/usecases/exchange/importRows';
import { useShell } from '@/ui/shell';
import { WordButton } from '@/ui/WordButton';
import { BadRows } from '../BadRows';
import { RowNotes } from './RowNotes';

/** What came of an import: counts, what is to be known of single rows, and the rows left out. */
export function Outcome({
  outcome: { changeId, made, changed, same, notes, bad },
  onUndo,
}: {
  outcome: ImportOutcome;
  /** Takes the import back; absent while it goes on. */
  onUndo?: (changeId: string) => void;
}) {
  const { brand } = useShell();
  return (
    <>
      <p role="status">
        Made {made}, changed {changed}, {same} were as they are.
      </p>
      {made + changed > 0 && changeId && onUndo && (
        <p className="import-next">
          <Link className="word" href={`/${brand.slug}/calendar?as=list`} prefetch={false}>
            See the posts as a list
          </Link>
          <WordButton onClick={() => onUndo(changeId)}>Undo the import</WordButton>
        </p>
      )}
      <RowNotes notes={notes} />
      <BadRows bad={bad} />
    </>
  );
}
