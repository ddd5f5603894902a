'use client';

import type { ReactNode } from 'react';
import Form from 'react-bootstrap/Form';
import { FieldRefusal, TiedToField } from './FieldRefusal';

/** A field: its label above it, and below it what helps to fill it in and why it was refused, by both of which it is described. */
export function Field({
  id,
  label,
  hint,
  refusal,
  className,
  children,
}: {
  /** Of the control. */
  id: string;
  label: ReactNode;
  hint?: ReactNode;
  refusal?: ReactNode;
  className?: string;
  /** The control. */
  children: ReactNode;
}) {
  return (
    <Form.Group controlId={id} {...(className && { className })}>
      <Form.Label>{label}</Form.Label>
      {children}
      {hint && (
        <Form.Text>
          <TiedToField field={id}>{hint}</TiedToField>
        </Form.Text>
      )}
      <FieldRefusal tied={id}>{refusal}</FieldRefusal>
    </Form.Group>
  );
}
