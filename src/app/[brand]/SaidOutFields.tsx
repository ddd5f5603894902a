'use client';

import { useState, type ReactNode } from 'react';
import Form from 'react-bootstrap/Form';
import type { LocalDate } from '@/core/time/plan';
import { Field } from '@/ui/Field';
import { WordButton } from '@/ui/WordButton';
import { useWhen } from './WhenFields';

/** Where and when a post went out, as it is typed. */
interface SaidOut {
  /** As the server takes it. */
  said: { address: string; date?: LocalDate; time?: string };
  /** Something is still to be said, or cannot be read. */
  isOpen: boolean;
  fields: ReactNode;
}

/**
 * The fields for where a post went out, or that it has no address, and for when that was: now, unless somebody says otherwise.
 *
 * @param id begins the ids of the fields
 * @param now the day and time that it is, or that was said before
 * @param before what was said before and is corrected; null for nothing. Its time stays unless another is given
 */
export function useSaidOut(
  id: string,
  now: { date: LocalDate; time: string },
  { isFirst = false, before = null }: { isFirst?: boolean; before?: { address: string } | null } = {},
): SaidOut {
  const [address, setAddress] = useState(before?.address ?? '');
  const [hasNone, setNone] = useState(before?.address === '');
  const [isEarlier, setEarlier] = useState(false);
  const when = useWhen(`${id}-when`, now.date, now.time, 'Time');
  const { date, time } = when.plan;
  const at = isEarlier && date !== null && time !== null ? { date, time } : {};
  return {
    said: { address: hasNone ? '' : address.trim(), ...at },
    isOpen: (!hasNone && address.trim() === '') || (isEarlier && (when.isBadTime || date === null || time === null)),
    fields: (
      <>
        <Field id={`${id}-address`} label="Its address, once it is published">
          <Form.Control
            dir="auto"
            autoFocus={isFirst}
            placeholder="https://"
            disabled={hasNone}
            value={hasNone ? '' : address}
            onChange={(event) => setAddress(event.target.value)}
          />
        </Field>
        <Form.Check
          id={`${id}-none`}
          className="mb-3"
          label="It has none: a story, a private profile"
          checked={hasNone}
          onChange={(event) => setNone(event.target.checked)}
        />
        {isEarlier ? (
          <div className="mb-3">
            {when.fields}
            <WordButton onClick={() => setEarlier(false)}>
              {before ? 'Leave the time as it is' : 'It went out just now'}
            </WordButton>
          </div>
        ) : (
          <p>
            <WordButton onClick={() => setEarlier(true)}>
              {before ? 'It went out at another time…' : 'It went out earlier…'}
            </WordButton>
          </p>
        )}
      </>
    ),
  };
}
