'use client';

import type { ReactNode } from 'react';

/** Pieces of a text by where the fold and the limit fall in it. Offsets in UTF-16 units, beyond the text or null for none. */
export function Marked({
  text,
  from = 0,
  foldAt,
  overAt,
}: {
  text: string;
  from?: number;
  foldAt: number | null;
  overAt: number | null;
}) {
  const end = text.length;
  const at = (offset: number | null) => (offset === null ? end : Math.min(end, Math.max(0, offset - from)));
  const fold = at(foldAt);
  const over = at(overAt);
  const shownEnd = Math.min(fold, over);
  const foldHere = foldAt !== null && foldAt >= from && foldAt - from <= end && fold <= over;
  return (
    <>
      {text.slice(0, shownEnd)}
      {foldHere && <span className="fold-line" />}
      <span className="past-fold">{text.slice(shownEnd, over)}</span>
      {over < end && <span className="past-limit">{text.slice(over)}</span>}
    </>
  );
}

/**
 * A text field that shows, while one types, what lies behind the fold and what runs over the limit. The marks are drawn
 * behind a transparent field with the same letters in the same places.
 */
export function MarkedText({
  label,
  field,
  value,
  onType,
  foldAt,
  overAt,
  below,
  oneLine = false,
  disabled = false,
  describedBy,
  placeholder,
}: {
  label: string;
  /** Which text it is, for what writes into it. */
  field?: string;
  value: string;
  onType: (text: string) => void;
  foldAt: number | null;
  overAt: number | null;
  /** What is composed behind the typed text. */
  below?: ReactNode;
  oneLine?: boolean;
  disabled?: boolean;
  describedBy?: string;
  placeholder?: string;
}) {
  return (
    <div className={`marked${overAt !== null ? ' is-over' : ''}`}>
      <div className={`marked-text${oneLine ? ' is-one-line' : ''}`}>
        <div className="marks" aria-hidden="true">
          <Marked text={value} foldAt={foldAt} overAt={overAt} />
          {'\u200b'}
        </div>
        <textarea
          aria-label={label}
          data-field={field}
          aria-describedby={describedBy}
          value={value}
          disabled={disabled}
          placeholder={placeholder}
          rows={oneLine ? 1 : 2}
          spellCheck
          onChange={(event) => onType(oneLine ? event.target.value.replace(/\n/g, ' ') : event.target.value)}
        />
      </div>
      {below}
    </div>
  );
}
