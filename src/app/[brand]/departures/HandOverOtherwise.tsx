'use client';

import { useRouter } from 'next/navigation';
import { useState, type FormEvent } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import type { Slip } from '@/core/calendar/slip';
import { Field } from '@/ui/Field';
import { useShell } from '@/ui/shell';
import type { ChangeAnswer } from '@/ui/undo';
import { useDeed } from '@/ui/useDeed';
import { useSayChange } from '@/ui/useSayChange';
import { WordButton } from '@/ui/WordButton';
import { useWhen } from '../WhenFields';

/** What else can become of a post that is to be posted by hand: another time, or none, with a reason. */
export function HandOverOtherwise({ slip }: { slip: Slip }) {
  const { brand } = useShell();
  const router = useRouter();
  const sayChange = useSayChange();
  const { run, busy } = useDeed();
  const [asked, setAsked] = useState<'move' | 'skip' | null>(null);
  const [reason, setReason] = useState('');
  const when = useWhen('hand-over-move', slip.date, slip.time, 'Time');

  async function change(event: FormEvent, to: object) {
    event.preventDefault();
    const answer = await run<ChangeAnswer>('POST', '/api/calendar/changes', {
      brandId: brand.id,
      posts: [{ id: slip.id, version: slip.version }],
      change: to,
    });
    if (answer.kind !== 'done') return;
    sayChange(answer.value.outcome);
    router.refresh();
  }

  if (asked === 'move')
    return (
      <form onSubmit={(event) => void change(event, { kind: 'place', ...when.plan })}>
        {when.fields}
        <Button type="submit" variant="outline" disabled={busy || when.isBadTime || when.plan.date === null}>
          Move it
        </Button>{' '}
        <WordButton onClick={() => setAsked(null)}>Cancel</WordButton>
      </form>
    );
  if (asked === 'skip')
    return (
      <form onSubmit={(event) => void change(event, { kind: 'setAside', reason })}>
        <Field id="hand-over-skip" label="Why it is skipped">
          <Form.Control dir="auto" autoFocus value={reason} onChange={(event) => setReason(event.target.value)} />
        </Field>
        <Button type="submit" variant="outline" disabled={busy || reason.trim() === ''}>
          Skip it
        </Button>{' '}
        <WordButton onClick={() => setAsked(null)}>Cancel</WordButton>
      </form>
    );
  return (
    <p className="hand-over-otherwise">
      <WordButton onClick={() => setAsked('move')}>Move…</WordButton>
      <WordButton onClick={() => setAsked('skip')}>Skip it…</WordButton>
    </p>
  );
}
