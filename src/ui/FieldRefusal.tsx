'use client';

import { useEffect, useId, useRef, type ReactNode } from 'react';
import Alert from 'react-bootstrap/Alert';

/** Why something was not done, beside the form it is about; nothing where there is no reason. */
export function FieldRefusal({
  children,
  tied = false,
}: {
  children: ReactNode;
  /** It is about the field before it, which names it then. */ tied?: boolean;
}) {
  return children ? (
    <Alert bsPrefix="field-refusal" variant="" transition={false}>
      {tied ? <Tied>{children}</Tied> : children}
    </Alert>
  ) : null;
}

const FIELDS = 'input, select, textarea, [contenteditable="true"]';

/** The field that stands before an element, the nearest in the order of the page. */
function fieldBefore(element: Element): Element | undefined {
  for (let around = element.parentElement; around && around !== document.body; around = around.parentElement) {
    const before = [...around.querySelectorAll(FIELDS)].filter(
      (field) => field.compareDocumentPosition(element) & Node.DOCUMENT_POSITION_FOLLOWING,
    );
    if (before.length > 0) return before.at(-1);
  }
  return undefined;
}

/** A reason that its field is described by for as long as it stands. */
function Tied({ children }: { children: ReactNode }) {
  const id = useId();
  const reason = useRef<HTMLSpanElement>(null);
  useEffect(() => {
    const field = fieldBefore(reason.current!);
    if (!field) return;
    const others = (field.getAttribute('aria-describedby') ?? '').split(' ').filter((one) => one !== '' && one !== id);
    field.setAttribute('aria-describedby', [...others, id].join(' '));
    field.setAttribute('aria-invalid', 'true');
    return () => {
      if (others.length > 0) field.setAttribute('aria-describedby', others.join(' '));
      else field.removeAttribute('aria-describedby');
      field.removeAttribute('aria-invalid');
    };
  }, [id]);
  return (
    <span id={id} ref={reason}>
      {children}
    </span>
  );
}
