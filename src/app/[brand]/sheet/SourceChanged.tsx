'use client';

import Button from 'react-bootstrap/Button';
import { Only } from '@/ui/shell';
import { useCorrections } from '../useCorrections';
import { CorrectedTexts } from './CorrectedTexts';

/** Says of an open post that its piece was corrected since it was made: what it says, what it would say, and what can be done. */
export function SourceChanged({
  post: { id, pieceId, version, stage },
  onDone,
}: {
  post: { id: string; pieceId: string; version: number; stage: string };
  onDone: () => void;
}) {
  const { found, decide, isBusy, problem } = useCorrections(pieceId, version, onDone);
  const own = found?.find((one) => one.id === id);
  if (!own) return null;
  const isOut = stage === 'published';
  const posts = [{ id, version: own.version }];
  return (
    <section className="notice source-changed" aria-label="The source changed">
      <b>The source changed.</b>{' '}
      {isOut
        ? 'It was published with what the piece said then.'
        : 'This post still says what the piece said when it was made.'}
      <CorrectedTexts texts={own.texts} gone={own.gone} />
      <Only deed="changePosts">
        <div className="source-changed-deeds">
          {!isOut && own.texts.length > 0 && (
            <Button size="sm" disabled={isBusy} onClick={() => void decide('correct', posts)}>
              {stage === 'scheduled' ? 'Correct and schedule again' : 'Correct this post'}
            </Button>
          )}
          <Button size="sm" variant="outline-primary" disabled={isBusy} onClick={() => void decide('leave', posts)}>
            Leave it as it is
          </Button>
        </div>
      </Only>
      {problem && (
        <p className="wrong" role="alert">
          {problem}
        </p>
      )}
    </section>
  );
}
