'use client';

import { Fragment, type ReactNode } from 'react';

type Span = { start: number; end: number };

/**
 * Pieces of a text by where the fold and the limit fall in it. Offsets in UTF-16 units, beyond the text or null for none.
 *
 * @param unread Stretches of its draft that nobody has read, apart and in order
 */
export function Marked({
  text,
  from = 0,
  foldAt,
  overAt,
  unread = [],
}: {
  text: string;
  from?: number;
  foldAt: number | null;
  overAt: number | null;
  unread?: readonly Span[];
}) {
  const end = text.length;
  const at = (offset: number | null) => (offset === null ? end : Math.min(end, Math.max(0, offset - from)));
  const fold = at(foldAt);
  const over = at(overAt);
  const shownEnd = Math.min(fold, over);
  const foldHere = foldAt !== null && foldAt >= from && foldAt - from <= end && fold <= over;
  return (
    <>
      <Stretch text={text} start={0} end={shownEnd} unread={unread} />
      {foldHere && <span className="fold-line" />}
      <span className="past-fold">
        <Stretch text={text} start={shownEnd} end={over} unread={unread} />
      </span>
      {over < end && (
        <span className="past-limit">
          <Stretch text={text} start={over} end={end} unread={unread} />
        </span>
      )}
    </>
  );
}

/** A stretch of a text, what nobody has read of it marked. */
function Stretch({ text, start, end, unread }: Span & { text: string; unread: readonly Span[] }) {
  const inside = unread
    .map((span) => ({ start: Math.max(start, span.start), end: Math.min(end, span.end) }))
    .filter((span) => span.start < span.end);
  const last = inside.at(-1)?.end ?? start;
  return (
    <>
      {inside.map((span, at) => (
        <Fragment key={span.start}>
          {text.slice(at === 0 ? start : inside[at - 1]!.end, span.start)}
          <span className="unread">{text.slice(span.start, span.end)}</span>
        </Fragment>
      ))}
      {text.slice(last, end)}
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
  unread = [],
  isOver = overAt !== null,
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
  /** Stretches of its draft that nobody has read, apart and in order. */
  unread?: readonly Span[];
  /** Whether it is longer than it may be; by where it runs over unless told. */
  isOver?: boolean;
}) {
  return (
    <div className={`marked${isOver ? ' is-over' : ''}`}>
      <div className={`marked-text${oneLine ? ' is-one-line' : ''}`}>
        <div className="marks" aria-hidden="true">
          <Marked text={value} foldAt={foldAt} overAt={overAt} unread={unread} />
          {'\u200b'}
        </div>
        <textarea
          dir="auto"
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
