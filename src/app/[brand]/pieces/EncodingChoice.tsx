'use client';

import type { PossibleEncoding } from '@/core/text/decode';
import { WordButton } from '@/ui/WordButton';

/** The ways in which a file may be written, each as it reads then; one is chosen. */
export function EncodingChoice({
  fileName,
  encodings,
  onChoose,
}: {
  fileName: string;
  encodings: readonly PossibleEncoding[];
  onChoose: (encoding: string) => void;
}) {
  return (
    <div className="source-encodings" role="alert">
      <span>It cannot be told for sure how “{fileName}” is written. Which of these reads right?</span>
      <ul>
        {encodings.map(({ encoding, preview }) => (
          <li key={encoding}>
            <WordButton aria-label={`Take this: ${encoding}`} onClick={() => onChoose(encoding)}>
              Take this
            </WordButton>{' '}
            <span dir="auto">{preview}</span> <span className="soft small-text">{encoding}</span>
          </li>
        ))}
      </ul>
    </div>
  );
}
