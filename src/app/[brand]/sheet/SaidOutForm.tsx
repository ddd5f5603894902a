'use client';

import type { FormEvent, KeyboardEvent } from 'react';
import Button from 'react-bootstrap/Button';
import { localOf, type Instant } from '@/core/time/plan';
import { useShell } from '@/ui/shell';
import { WordButton } from '@/ui/WordButton';
import { useSaidOut } from '../SaidOutFields';

/** Says of a post that went out without Bimlo where that was, and when, or corrects what was said of it. */
export function SaidOutForm({
  before = null,
  busy,
  onSay,
  onCancel,
}: {
  /** What was said before; null for a post that is not marked as published yet. */
  before?: { address: string; publishedAt: Instant } | null;
  busy: boolean;
  onSay: (said: object) => void;
  onCancel: () => void;
}) {
  const { brand, now } = useShell();
  const out = useSaidOut('said-out', localOf(before?.publishedAt ?? now, brand.zone), { isFirst: true, before });

  function leave(event: KeyboardEvent) {
    if (event.key !== 'Escape') return;
    event.stopPropagation();
    onCancel();
  }
  function say(event: FormEvent) {
    event.preventDefault();
    if (!out.isOpen) onSay(out.said);
  }

  return (
    <form className="words asked" onKeyDown={leave} onSubmit={say}>
      {out.fields}
      <div className="deeds" data-deeds>
        <Button type="submit" variant="outline-primary" disabled={busy || out.isOpen}>
          {before ? 'Correct it' : 'Mark as published'}
        </Button>
        <WordButton disabled={busy} onClick={onCancel}>
          Cancel
        </WordButton>
      </div>
    </form>
  );
}
