'use client';

import { useState, type FormEvent } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Dialog } from '@/ui/Dialog';
import type { Change } from '@/core/calendar/change';
import type { Slip } from '@/core/calendar/slip';
import { Field } from '@/ui/Field';
import { useWhen } from '../WhenFields';

/** A post as far as it is moved: from its slip, or from its sheet where it lies outside what is shown. */
export type Movable = Pick<Slip, 'id' | 'version' | 'brandId' | 'title' | 'date' | 'time' | 'channelId'>;

/** Moves a post without dragging: to a day, a time, another channel, or to the tray. */
export function MoveDialog({
  slip,
  channels,
  onMove,
  onClose,
}: {
  slip: Movable;
  channels: readonly { id: string; name: string }[];
  onMove: (change: Change) => void;
  onClose: () => void;
}) {
  const when = useWhen('move', slip.date, slip.time, 'Time');
  const [channelId, setChannelId] = useState(slip.channelId);

  function move(event: FormEvent) {
    event.preventDefault();
    onMove({ kind: 'place', ...when.plan, ...(channelId === slip.channelId ? {} : { channelId }) });
    onClose();
  }

  const where = channels.find(({ id }) => id === channelId)?.name ?? '';
  return (
    <Dialog
      title={`Move “${slip.title}”`}
      onClose={onClose}
      onSubmit={move}
      deeds={
        <Button type="submit" disabled={when.isBadTime}>
          {when.words
            ? `Move to ${when.words}${channelId === slip.channelId ? '' : ` on ${where}`}`
            : 'Move to the tray'}
        </Button>
      }
      onCancel={onClose}
    >
      {when.fields}
      <Field id="move-channel" label="Channel">
        <Form.Select value={channelId} onChange={(event) => setChannelId(event.target.value)}>
          {channels.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </Form.Select>
      </Field>
    </Dialog>
  );
}
