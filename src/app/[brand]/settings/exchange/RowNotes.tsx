import { counted } from '@/core/words';
import type { ImportOutcome } from '@/usecases/exchange/importRows';

/** Notes shown at most. */
const SHOWN = 500;

/** What is to be known of single rows. */
export function RowNotes({ notes }: Pick<ImportOutcome, 'notes'>) {
  if (notes.length === 0) return null;
  return (
    <details className="bad-rows">
      <summary>{counted(notes.length, 'note')}</summary>
      <ul>
        {notes.slice(0, SHOWN).map(({ line, message }, index) => (
          <li key={index}>
            <span className="figures">line {line}</span> {message}
          </li>
        ))}
      </ul>
    </details>
  );
}
