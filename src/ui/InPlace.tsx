'use client';

import { useState, type KeyboardEvent } from 'react';
import { readTypedTime } from '@/core/time/typed';
import { DateField } from '@/ui/DateField';
import { WordButton } from '@/ui/WordButton';

/**
 * A date or time that reads as text and becomes a field when it is pressed. Enter or leaving the field takes the new value,
 * Escape keeps the old. A time is typed freely (`1430`, `9`, `2.15 pm`); what is none stays in the field, marked.
 */
export function InPlace({
  label,
  value,
  shown,
  type,
  disabled,
  className = '',
  onCommit,
}: {
  /** What it is, for screen readers: “Date”. */
  label: string;
  /** `2026-11-23`, `14:30`, or empty for none. */
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
      <WordButton
        className={`in-place ${className}`}
        aria-label={`${label}: ${shown}. Change`}
        disabled={disabled}
        onClick={() => setTyped(value)}
      >
        {shown}
      </WordButton>
    );
  const read = type === 'date' || typed.trim() === '' ? typed.trim() : readTypedTime(typed);
  const finish = () => {
    if (read === null) return;
    setTyped(null);
    if (read !== value) onCommit(read);
  };
  const take = (event: KeyboardEvent) => {
    if (event.key === 'Enter') finish();
    if (event.key === 'Escape') {
      event.stopPropagation();
      setTyped(null);
    }
  };
  if (type === 'date')
    return <DateField label={label} value={typed} onChange={setTyped} onKey={take} onBlur={finish} autoFocus />;
  return (
    <input
      dir="auto"
      size={6}
      aria-label={label}
      aria-invalid={read === null}
      title={read === null ? 'Hours and minutes, like 14:30' : undefined}
      placeholder="14:30"
      value={typed}
      autoFocus
      onFocus={(event) => event.target.select()}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={finish}
      onKeyDown={take}
    />
  );
}
