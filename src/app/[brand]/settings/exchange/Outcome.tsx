import { counted } from '@/core/words';
import type { ImportOutcome } from '@/usecases/exchange/importRows';
import { BadRows } from '../BadRows';

/** Notes shown at most. */
const SHOWN_NOTES = 500;

/** What came of an import: counts, what is to be known of single rows, and the rows left out. */
export function Outcome({ outcome: { made, changed, same, notes, bad } }: { outcome: ImportOutcome }) {
  return (
    <>
      <p role="status">
        Made {made}, changed {changed}, {same} were as they are.
      </p>
      {notes.length > 0 && (
        <details className="bad-rows">
          <summary>{counted(notes.length, 'note')}</summary>
          <ul>
            {notes.slice(0, SHOWN_NOTES).map(({ line, message }, index) => (
              <li key={index}>
                <span className="figures">line {line}</span> {message}
              </li>
            ))}
          </ul>
        </details>
      )}
      <BadRows bad={bad} />
    </>
  );
}
