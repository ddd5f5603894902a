'use client';

import { useRouter } from 'next/navigation';
import { useState, type FormEvent } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import type { Ways } from '@/core/notices/ways';
import { call, problemOf } from '@/ui/api';
import { Field } from '@/ui/Field';
import { FieldRefusal } from '@/ui/FieldRefusal';
import { useSay } from '@/ui/messages';

/** Where somebody is mailed, and the hours in which they are not. */
export function WaysForm({ ways, zone }: { ways: Ways; zone: string }) {
  const router = useRouter();
  const say = useSay();
  const [address, setAddress] = useState(ways.mailAddress);
  const [from, setFrom] = useState(ways.quiet?.from ?? '');
  const [to, setTo] = useState(ways.quiet?.to ?? '');
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);

  async function save(event: FormEvent) {
    event.preventDefault();
    if ((from === '') !== (to === '')) return setProblem('Quiet hours have a beginning and an end.');
    setBusy(true);
    const quiet = from === '' ? null : { from, to };
    const answer = await call('POST', '/api/notices/ways', { mailAddress: address, quiet });
    setBusy(false);
    setProblem(problemOf(answer));
    if (answer.kind !== 'done') return;
    say({ text: address.trim() === '' ? 'Saved. You get no mail.' : `Saved. Notices go to ${address.trim()}, too.` });
    router.refresh();
  }

  return (
    <Form noValidate className="ways" onSubmit={(event) => void save(event)}>
      <Field id="ways-address" label="Notices by mail, too, to">
        <Form.Control
          type="email"
          autoComplete="email"
          value={address}
          placeholder="no mail"
          onChange={(event) => setAddress(event.target.value)}
        />
      </Field>
      <div className="quiet-hours">
        <Field id="ways-from" label={`No mail from (${zone.split('/').at(-1)!.replace('_', ' ')} time)`}>
          <Form.Control type="time" value={from} onChange={(event) => setFrom(event.target.value)} />
        </Field>
        <Field id="ways-to" label="until">
          <Form.Control type="time" value={to} onChange={(event) => setTo(event.target.value)} />
        </Field>
      </div>
      <FieldRefusal>{problem}</FieldRefusal>
      <Button type="submit" variant="outline" disabled={busy}>
        Save
      </Button>
    </Form>
  );
}
