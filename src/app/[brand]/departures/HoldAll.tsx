'use client';

import { useRouter } from 'next/navigation';
import { useState, type FormEvent } from 'react';
import Alert from 'react-bootstrap/Alert';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { counted } from '@/core/words';
import type { Released, ShownHold } from '@/usecases/delivery/holdAll';
import { call, problemOf } from '@/ui/api';
import { Dialog } from '@/ui/Dialog';
import { Field } from '@/ui/Field';
import { FieldRefusal } from '@/ui/FieldRefusal';
import { dayAndTime } from '@/ui/format';
import { useSay } from '@/ui/messages';
import { Only, useShell } from '@/ui/shell';
import { useSayChange } from '@/ui/useSayChange';

const PATH = '/api/departures/hold';

const overdueWords = (count: number): string =>
  `${counted(count, 'post')} had ${count === 1 ? 'its' : 'their'} time meanwhile`;

/** Puts all posts of the brand on hold, with a reason. */
export function HoldAll() {
  const { brand } = useShell();
  const router = useRouter();
  const [isOpen, setOpen] = useState(false);
  const [reason, setReason] = useState('');
  const [problem, setProblem] = useState<string | null>(null);

  async function hold(event: FormEvent) {
    event.preventDefault();
    const answer = await call('POST', PATH, { brandId: brand.id, reason });
    setProblem(problemOf(answer));
    if (answer.kind !== 'done') return;
    setOpen(false);
    router.refresh();
  }

  return (
    <Only deed="manageBrand">
      <Button variant="outline" onClick={() => setOpen(true)}>
        Hold all…
      </Button>
      {isOpen && (
        <Dialog
          title="Hold all posts"
          onClose={() => setOpen(false)}
          onCancel={() => setOpen(false)}
          onSubmit={(event) => void hold(event)}
          deeds={<Button type="submit">Hold all posts</Button>}
        >
          <p>Nothing of {brand.name} is sent, or said to be due by hand, until somebody releases it.</p>
          <Field id="hold-reason" label="Why">
            <Form.Control dir="auto" autoFocus value={reason} onChange={(event) => setReason(event.target.value)} />
          </Field>
          <FieldRefusal>{problem}</FieldRefusal>
        </Dialog>
      )}
    </Only>
  );
}

/** That all posts of the brand are on hold, since when, why and by whom; a manager releases them from here. */
export function HoldNotice({ hold }: { hold: ShownHold }) {
  const { brand, people } = useShell();
  const [isReleasing, setReleasing] = useState(false);
  const who = people.find(({ id }) => id === hold.personId)?.name;
  return (
    <Alert variant="warning" className="notice hold-notice">
      <div>
        <b>All posts are on hold</b> since {dayAndTime(hold.since, brand.zone)}
        {who && `, by ${who}`}: <span dir="auto">{hold.reason}</span>
        {hold.overdue > 0 && <div>{overdueWords(hold.overdue)}.</div>}
      </div>
      <Only deed="manageBrand">
        <Button onClick={() => setReleasing(true)}>Release…</Button>
      </Only>
      {isReleasing && <ReleaseDialog hold={hold} onClose={() => setReleasing(false)} />}
    </Alert>
  );
}

function ReleaseDialog({ hold: { overdue }, onClose }: { hold: ShownHold; onClose: () => void }) {
  const { brand } = useShell();
  const router = useRouter();
  const say = useSay();
  const sayChange = useSayChange();
  const [isSpread, setSpread] = useState(true);
  const [problem, setProblem] = useState<string | null>(null);

  async function release(event: FormEvent) {
    event.preventDefault();
    const spread = overdue > 0 && isSpread;
    const answer = await call<Released>('DELETE', PATH, { brandId: brand.id, spread });
    setProblem(problemOf(answer));
    if (answer.kind !== 'done') return;
    const moved = answer.value.spread;
    if (moved) sayChange(moved, 'All posts are released. ');
    else say({ text: 'All posts are released.' });
    onClose();
    router.refresh();
  }

  return (
    <Dialog
      title="Release all posts"
      onClose={onClose}
      onCancel={onClose}
      onSubmit={(event) => void release(event)}
      deeds={<Button type="submit">Release all posts</Button>}
    >
      <p>What is still to come is sent at its time.</p>
      {overdue > 0 && (
        <fieldset>
          <legend className="form-label">{overdueWords(overdue)}</legend>
          <Form.Check
            type="radio"
            id="release-spread"
            name="release"
            label="Move each to the next opening of its channel"
            checked={isSpread}
            onChange={() => setSpread(true)}
          />
          <Form.Check
            type="radio"
            id="release-timed"
            name="release"
            label="Keep their times: what is more than half an hour late waits for a decision"
            checked={!isSpread}
            onChange={() => setSpread(false)}
          />
        </fieldset>
      )}
      <FieldRefusal>{problem}</FieldRefusal>
    </Dialog>
  );
}
