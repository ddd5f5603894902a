'use client';

import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { counted } from '@/core/words';
import { useCorrections } from '../../../useCorrections';
import { CorrectionsDialog } from './CorrectionsDialog';

/** Says on the page of a piece that posts were made before it was corrected, and leads to what they say. */
export function SourceChanges({
  piece,
  hasPosts,
  onDone,
}: {
  piece: { id: string; title: string; version: number };
  hasPosts: boolean;
  onDone: () => void;
}) {
  const { found, decide, isBusy, problem } = useCorrections(piece.id, hasPosts ? piece.version : null, onDone);
  const [isOpen, setOpen] = useState(false);
  if (!found || found.length === 0) return null;
  const [unsent, out] = [
    found.filter(({ stage }) => stage !== 'published'),
    found.filter(({ stage }) => stage === 'published'),
  ];
  const said = [
    unsent.length > 0 && `${counted(unsent.length, 'post')} to come`,
    out.length > 0 && counted(out.length, 'published post'),
  ].filter(Boolean);
  return (
    <section className="notice source-changes" aria-label="The source changed">
      <b>The source changed.</b> {said.join(' and ')} still{' '}
      {found.length === 1 ? 'says what the piece said before.' : 'say what the piece said before.'}{' '}
      <Button size="sm" variant="outline-primary" onClick={() => setOpen(true)}>
        Show what differs…
      </Button>
      {isOpen && (
        <CorrectionsDialog
          title={piece.title}
          unsent={unsent}
          out={out}
          isBusy={isBusy}
          problem={problem}
          onDecide={(deed, posts) => void decide(deed, posts)}
          onClose={() => setOpen(false)}
        />
      )}
    </section>
  );
}
