'use client';

import { useState } from 'react';

/**
 * A fact that reads as text and becomes a field when it is pressed. Enter or leaving the field takes the new value, Escape
 * keeps the old.
 */
export function InPlace({
  label,
  value,
  shown,
  type,
  disabled,
  className,
  onCommit,
}: {
  /** What it is, for screen readers: “Date”. */
  label: string;
  value: string;
  shown: string;
  type: 'date' | 'time';
  disabled?: boolean;
  className?: string;
  onCommit: (value: string) => void;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  if (typed === null)
    return (
      <button
        type="button"
        className={`word ${className ?? ''}`}
        aria-label={`${label}: ${shown}. Change`}
        disabled={disabled}
        onClick={() => setTyped(value)}
      >
        {shown}
      </button>
    );
  const finish = () => {
    setTyped(null);
    if (typed !== value) onCommit(typed);
  };
  return (
    <input
      type={type}
      aria-label={label}
      value={typed}
      autoFocus
      onChange={(event) => setTyped(event.target.value)}
      onBlur={finish}
      onKeyDown={(event) => {
        if (event.key === 'Enter') finish();
        if (event.key === 'Escape') {
          event.stopPropagation();
          setTyped(null);
        }
      }}
    />
  );
}
