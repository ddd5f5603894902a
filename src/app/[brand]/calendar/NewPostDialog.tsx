'use client';

import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import Modal from 'react-bootstrap/Modal';
import type { Slip } from '@/core/calendar/slip';
import type { LocalDate } from '@/core/time/plan';
import { call, problemOf, type Answer } from '@/ui/api';
import { useShell } from '@/ui/shell';
import { PlanDialog } from '../PlanDialog';

/** Makes a post in place: first what it says, which becomes its piece, then channels and date. */
export function NewPostDialog({
  date,
  onMade,
  onClose,
}: {
  date: LocalDate;
  onMade: (slips: Slip[]) => void;
  onClose: () => void;
}) {
  const { brand } = useShell();
  const [title, setTitle] = useState('');
  const [piece, setPiece] = useState<{ id: string; title: string } | null>(null);
  const [problem, setProblem] = useState<string | null>(null);

  if (piece)
    return (
      <PlanDialog piece={{ ...piece, suggestedChannelIds: [] }} date={date} onPlanned={onMade} onClose={onClose} />
    );

  async function next() {
    const answer: Answer<{ id: string; title: string }> = await call('POST', '/api/pieces', {
      brandId: brand.id,
      title,
    });
    setProblem(problemOf(answer));
    if (answer.kind === 'done') setPiece(answer.value);
  }

  return (
    <Modal show onHide={onClose} animation={false} aria-labelledby="new-post-title">
      <Form
        noValidate
        onSubmit={(event) => {
          event.preventDefault();
          void next();
        }}
      >
        <Modal.Header closeButton>
          <Modal.Title id="new-post-title" as="h2">
            New post
          </Modal.Title>
        </Modal.Header>
        <Modal.Body>
          <Form.Group controlId="new-post-what">
            <Form.Label>Working title</Form.Label>
            <Form.Control
              autoFocus
              value={title}
              onChange={(event) => setTitle(event.target.value)}
              autoComplete="off"
            />
          </Form.Group>
          {problem && (
            <div className="field-refusal" role="alert">
              {problem}
            </div>
          )}
        </Modal.Body>
        <Modal.Footer>
          <Button type="submit">Choose its channels</Button>
          <Button variant="outline" onClick={onClose}>
            Not now
          </Button>
        </Modal.Footer>
      </Form>
    </Modal>
  );
}
