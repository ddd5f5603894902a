'use client';

import { useState } from 'react';
import { readTypedTime } from '@/core/time/typed';
import type { LocalDate, LocalTime } from '@/core/time/plan';
import { DateField } from '@/ui/DateField';
import { shortDate } from '@/ui/format';
import { WordButton } from '@/ui/WordButton';

/** Another date, or time, that somebody gave to a post of a preview; absent for those it was shown with. */
export interface OwnDate {
  date?: string;
  time?: string;
}

/** A date and time as they were worked out. */
interface Shown {
  date: LocalDate | null;
  time: LocalTime | null;
}

/** The date of a post to be made: as it was worked out, or as somebody moved it. */
export function plannedOf({ date, time }: Shown, own: OwnDate): Shown & { isMoved: boolean } {
  const at = own.date ?? date ?? '';
  const isMoved = (own.date !== undefined && own.date !== (date ?? '')) || own.time !== undefined;
  if (!isMoved) return { date, time, isMoved };
  const kept = own.date === undefined || own.date === (date ?? '') ? time : null;
  const wanted = own.time === undefined ? kept : readTypedTime(own.time);
  return { date: at === '' ? null : at, time: at === '' ? null : wanted, isMoved };
}

/** Shows the date of a post to be made, and lets it be moved to another date or time. */
export function PlannedDate({
  name,
  shown,
  own,
  onChange,
}: {
  /** What it is the date of, for whoever hears it. */
  name: string;
  shown: Shown;
  own: OwnDate;
  onChange: (own: OwnDate) => void;
}) {
  const [isMoving, setMoving] = useState(false);
  const planned = plannedOf(shown, own);
  if (!isMoving)
    return (
      <WordButton className="figures" aria-label={`Another date for “${name}”`} onClick={() => setMoving(true)}>
        {planned.date === null ? 'no date' : shortDate(planned.date)} {planned.time}
      </WordButton>
    );
  return (
    <span className="planned-date">
      <DateField label={`Date of “${name}”`} value={planned.date ?? ''} onChange={(date) => onChange({ date })} />
      <input
        className="figures"
        size={5}
        placeholder="no time"
        aria-label={`Time of “${name}”`}
        value={own.time ?? planned.time ?? ''}
        onChange={(event) => onChange({ time: event.target.value })}
      />
    </span>
  );
}
