'use client';

import { useEffect, useId, useRef, type ReactNode } from 'react';
import Alert from 'react-bootstrap/Alert';

/** Why something was not done, beside the form it is about; nothing where there is no reason. */
export function FieldRefusal({
  children,
  tied = false,
}: {
  children: ReactNode;
  /** It is about the field of that id, or the one before it, which is described by it then. */
  tied?: boolean | string;
}) {
  return children ? (
    <Alert bsPrefix="field-refusal" variant="" transition={false}>
      {tied ? (
        <TiedToField isWrong {...(typeof tied === 'string' && { field: tied })}>
          {children}
        </TiedToField>
      ) : (
        children
      )}
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

/** What a field is described by for as long as it stands: the one of that id, else the one before it. A reason marks it as wrong. */
export function TiedToField({
  field: fieldId,
  isWrong = false,
  children,
}: {
  field?: string;
  isWrong?: boolean;
  children: ReactNode;
}) {
  const id = useId();
  const reason = useRef<HTMLSpanElement>(null);
  useEffect(() => {
    /** Sets by what a field is described, from the others by which it is. */
    const describe = (field: Element, by: (others: string[]) => string[]) => {
      const others = (field.getAttribute('aria-describedby') ?? '')
        .split(' ')
        .filter((one) => one !== '' && one !== id);
      const ids = by(others);
      if (ids.length > 0) field.setAttribute('aria-describedby', ids.join(' '));
      else field.removeAttribute('aria-describedby');
    };
    const field = fieldId === undefined ? fieldBefore(reason.current!) : document.getElementById(fieldId);
    if (!field) return;
    describe(field, (ids) => [...ids, id]);
    if (isWrong) field.setAttribute('aria-invalid', 'true');
    return () => {
      describe(field, (ids) => ids);
      if (isWrong) field.removeAttribute('aria-invalid');
    };
  }, [id, fieldId, isWrong]);
  return (
    <span id={id} ref={reason}>
      {children}
    </span>
  );
}
