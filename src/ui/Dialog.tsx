'use client';

import { useId, type FormEvent, type ReactNode } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import Modal from 'react-bootstrap/Modal';

/** A dialog over the page: its title, what it holds, and its buttons; Escape and the cross close it. */
export function Dialog({
  title,
  size,
  className,
  bodyClassName,
  deeds,
  onSubmit,
  onCancel,
  onClose,
  children,
}: {
  title: ReactNode;
  /** `xl` scrolls within itself. */
  size?: 'lg' | 'xl';
  className?: string;
  bodyClassName?: string;
  /** Its buttons, the one that it is for first. */
  deeds?: ReactNode;
  /** Makes it a form that is sent by Enter. */
  onSubmit?: (event: FormEvent) => void;
  /** Ends its buttons with “Cancel”. */
  onCancel?: () => void;
  onClose: () => void;
  children: ReactNode;
}) {
  const titleId = useId();
  const inside = (
    <>
      <Modal.Header closeButton>
        <Modal.Title id={titleId} as="h2">
          {title}
        </Modal.Title>
      </Modal.Header>
      <Modal.Body {...(bodyClassName && { className: bodyClassName })}>{children}</Modal.Body>
      {(deeds || onCancel) && (
        <Modal.Footer>
          {deeds}
          {onCancel && (
            <Button variant="outline" onClick={onCancel}>
              Cancel
            </Button>
          )}
        </Modal.Footer>
      )}
    </>
  );
  return (
    <Modal
      show
      animation={false}
      onHide={onClose}
      scrollable={size === 'xl'}
      aria-labelledby={titleId}
      {...(size && { size })}
      {...(className && { dialogClassName: className })}
    >
      {onSubmit ? (
        <Form onSubmit={onSubmit} noValidate>
          {inside}
        </Form>
      ) : (
        inside
      )}
    </Modal>
  );
}

/** A dialog that is nothing but a line to type in and what it finds. */
export function Palette({ label, onClose, children }: { label: string; onClose: () => void; children: ReactNode }) {
  return (
    <Modal show animation={false} onHide={onClose} aria-label={label} className="find-and-do">
      {children}
    </Modal>
  );
}
