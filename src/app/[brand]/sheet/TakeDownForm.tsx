'use client';

import { useState, type FormEvent, type KeyboardEvent } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Field } from '@/ui/Field';
import type { Shell } from '@/ui/shell';
import { WordButton } from '@/ui/WordButton';

/** Asks why a published post is taken down. */
export function TakeDownForm({
  channel,
  busy,
  onSay,
  onCancel,
}: {
  channel: Shell['channels'][number];
  busy: boolean;
  onSay: (reason: string) => void;
  onCancel: () => void;
}) {
  const [reason, setReason] = useState('');

  function leave(event: KeyboardEvent) {
    if (event.key !== 'Escape') return;
    event.stopPropagation();
    onCancel();
  }
  function say(event: FormEvent) {
    event.preventDefault();
    if (reason.trim() !== '') onSay(reason);
  }

  return (
    <form className="words asked" onKeyDown={leave} onSubmit={say}>
      <Field
        id="take-down-reason"
        label={`Why it is taken down from ${channel.sheet.name}`}
        hint="Where the network does not do it, you are reminded to do it by hand. It cannot be put back."
      >
        <Form.Control dir="auto" autoFocus value={reason} onChange={(event) => setReason(event.target.value)} />
      </Field>
      <div className="deeds" data-deeds>
        <Button type="submit" variant="outline-primary" disabled={busy || reason.trim() === ''}>
          Take it down
        </Button>
        <WordButton disabled={busy} onClick={onCancel}>
          Cancel
        </WordButton>
      </div>
    </form>
  );
}
