'use client';

import { useId, type ReactNode } from 'react';
import OverlayTrigger from 'react-bootstrap/OverlayTrigger';
import Tooltip from 'react-bootstrap/Tooltip';
import { TERMS, type Term } from '@/core/terms';

/** One of Bimlo’s own terms, explained when it is pointed at, reached by Tab or touched. */
export function TermHint({ term, children }: { term: Term; children: ReactNode }) {
  const id = useId();
  return (
    <OverlayTrigger placement="bottom-start" overlay={<Tooltip id={id}>{TERMS[term]}</Tooltip>}>
      <span className="term" tabIndex={0}>
        {children}
      </span>
    </OverlayTrigger>
  );
}
