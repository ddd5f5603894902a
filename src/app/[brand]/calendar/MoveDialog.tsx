'use client';

import { useState, type FormEvent } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import Modal from 'react-bootstrap/Modal';
import type { Change } from '@/core/calendar/change';
import type { Slip } from '@/core/calendar/slip';
import { readTypedTime } from '@/core/time/typed';
import { shortDate } from '@/ui/format';
import { DateField } from '@/ui/DateField';
import { FieldRefusal } from '@/ui/FieldRefusal';

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
  const [date, setDate] = useState(slip.date ?? '');
  const [time, setTime] = useState(slip.time ?? '');
  const [channelId, setChannelId] = useState(slip.channelId);
  const readTime = time.trim() === '' ? null : readTypedTime(time);
  const isBadTime = time.trim() !== '' && readTime === null;

  function move(event: FormEvent) {
    event.preventDefault();
    onMove({
      kind: 'place',
      date: date || null,
      time: date ? readTime : null,
      ...(channelId === slip.channelId ? {} : { channelId }),
    });
    onClose();
  }

  const where = channels.find(({ id }) => id === channelId)?.name ?? '';
  return (
    <Modal show onHide={onClose} animation={false} aria-labelledby="move-dialog-title">
      <Form onSubmit={move} noValidate>
        <Modal.Header closeButton>
          <Modal.Title id="move-dialog-title" as="h2">
            Move “{slip.title}”
          </Modal.Title>
        </Modal.Header>
        <Modal.Body>
          <div className="d-flex-row">
            <div>
              <div className="form-label">Date</div>
              <DateField label="Date" value={date} onChange={setDate} />
            </div>
            <Form.Group controlId="move-time">
              <Form.Label>Time</Form.Label>
              <Form.Control
                dir="auto"
                value={time}
                placeholder="14:30"
                isInvalid={isBadTime}
                disabled={date === ''}
                onChange={(event) => setTime(event.target.value)}
              />
              {isBadTime && (
                <FieldRefusal tied>“{time}” is not a time. Write hours and minutes, like 14:30.</FieldRefusal>
              )}
            </Form.Group>
            <Form.Group controlId="move-channel">
              <Form.Label>Channel</Form.Label>
              <Form.Select value={channelId} onChange={(event) => setChannelId(event.target.value)}>
                {channels.map(({ id, name }) => (
                  <option key={id} value={id}>
                    {name}
                  </option>
                ))}
              </Form.Select>
            </Form.Group>
          </div>
        </Modal.Body>
        <Modal.Footer>
          <Button type="submit" disabled={isBadTime}>
            {date
              ? `Move to ${shortDate(date)}${readTime ? ` ${readTime}` : ''}${channelId === slip.channelId ? '' : ` on ${where}`}`
              : 'Move to the tray'}
          </Button>
          <Button variant="outline" onClick={onClose}>
            Cancel
          </Button>
        </Modal.Footer>
      </Form>
    </Modal>
  );
}
