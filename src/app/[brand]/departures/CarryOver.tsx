'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import type { CarryOver as Carried } from '@/usecases/delivery/proposeCarryOver';
import { call, problemOf } from '@/ui/api';
import { CallSign } from '@/ui/CallSign';
import { Dialog } from '@/ui/Dialog';
import { FieldRefusal } from '@/ui/FieldRefusal';
import { shortDate } from '@/ui/format';
import { useShell } from '@/ui/shell';
import type { ChangeAnswer } from '@/ui/undo';
import { useSayChange } from '@/ui/useSayChange';

/** Moves what was not sent on its day to the next openings, each as it is proposed, all at once. */
export function CarryOver() {
  const { brand } = useShell();
  const [proposed, setProposed] = useState<readonly Carried[] | null>(null);
  const [problem, setProblem] = useState<string | null>(null);

  async function open() {
    const answer = await call<Carried[]>('GET', `/api/departures/carry-over?brand=${brand.id}`);
    setProblem(problemOf(answer));
    if (answer.kind === 'done') setProposed(answer.value);
  }

  return (
    <>
      <Button variant="outline" onClick={() => void open()}>
        Carry over…
      </Button>
      <FieldRefusal>{problem}</FieldRefusal>
      {proposed && <CarryOverDialog proposed={proposed} onClose={() => setProposed(null)} />}
    </>
  );
}

const placeWords = ({ date, time }: Carried['was']): string => `${shortDate(date)}${time === null ? '' : ` ${time}`}`;

function CarryOverDialog({ proposed, onClose }: { proposed: readonly Carried[]; onClose: () => void }) {
  const { brand, channels } = useShell();
  const router = useRouter();
  const sayChange = useSayChange();
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const moved = proposed.flatMap(({ id, version, to }) => (to && !left.has(id) ? [{ id, version, ...to }] : []));

  async function carry() {
    setBusy(true);
    const answer = await call<ChangeAnswer>('POST', '/api/calendar/changes', {
      brandId: brand.id,
      posts: moved.map(({ id, version }) => ({ id, version })),
      change: { kind: 'carry', places: moved.map(({ id, date, time }) => ({ id, date, time })) },
    });
    setBusy(false);
    setProblem(problemOf(answer));
    if (answer.kind !== 'done') return;
    sayChange(answer.value.outcome);
    router.refresh();
    onClose();
  }

  return (
    <Dialog
      title="Carry over"
      size="xl"
      onClose={onClose}
      onCancel={onClose}
      deeds={
        <Button disabled={busy || moved.length === 0} onClick={() => void carry()}>
          {moved.length === 1 ? 'Move 1 post' : `Move ${moved.length} posts`}
        </Button>
      }
    >
      <p className="soft">Each post goes to the next opening of its channel that is free and takes its format.</p>
      <ul className="carry-over">
        {proposed.map(({ id, channelId, title, was, to }) => {
          const channel = channels.find((one) => one.id === channelId);
          return (
            <li key={id}>
              <Form.Check
                id={`carry-${id}`}
                checked={to !== null && !left.has(id)}
                disabled={to === null}
                onChange={(event) => {
                  const next = new Set(left);
                  if (event.target.checked) next.delete(id);
                  else next.add(id);
                  setLeft(next);
                }}
                label={
                  <>
                    {channel && <CallSign sign={channel.callSign} color={channel.color} name={channel.name} />}{' '}
                    <span dir="auto">{title}</span>
                  </>
                }
              />
              <span className="soft figures">{placeWords(was)}</span>
              <span aria-hidden="true">→</span>
              {to ? (
                <b className="figures">{placeWords(to)}</b>
              ) : (
                <span className="attention">no opening in 60 days</span>
              )}
            </li>
          );
        })}
      </ul>
      <FieldRefusal>{problem}</FieldRefusal>
    </Dialog>
  );
}
