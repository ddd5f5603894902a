'use client';

import { useMemo } from 'react';
import type { Opening } from '@/core/rhythm/openings';
import type { LocalDate } from '@/core/time/plan';
import type { KnownDate } from '@/usecases/calendar/reading';
import { spokenDate, weekdayName } from '@/ui/format';
import { useTimetable } from './timetable';
import { BatchDaysHere, StepsHere } from './WorkingDates';

/** The head of a day's column: its number and weekday, what the rhythm calls it, and dates to plan around as a thin band. */
export function DayHead({
  date,
  knownDates,
  openings,
  line,
}: {
  date: LocalDate;
  knownDates: readonly KnownDate[];
  openings: readonly Opening[];
  line: boolean;
}) {
  const { today } = useTimetable();
  const themes = useMemo(
    () => [...new Set(openings.filter((opening) => opening.date === date && opening.theme).map(({ theme }) => theme))],
    [openings, date],
  );
  return (
    <th scope="col" className={`day-column${date === today ? ' is-today' : ''}`} aria-label={spokenDate(date)}>
      <span className="day-number">{Number(date.slice(8))}</span>{' '}
      <span className="soft">{line ? weekdayName(date).slice(0, 2) : weekdayName(date)}</span>
      <DateBand date={date} knownDates={knownDates} />
      <BatchDaysHere date={date} />
      <StepsHere date={date} channelId={null} line />
      {!line && themes.length > 0 && (
        <span className="day-theme soft" title={themes.join(', ')}>
          {themes[0]}
          {themes.length > 1 ? ` +${themes.length - 1}` : ''}
        </span>
      )}
    </th>
  );
}

/** The dates to plan around on a day, as a thin band; whole on focus. */
export function DateBand({ date, knownDates }: { date: LocalDate; knownDates: readonly KnownDate[] }) {
  const here = knownDates.filter((known) => known.from <= date && date <= known.to);
  if (here.length === 0) return null;
  const words = here.map(({ title, time }) => (time ? `${time} ${title}` : title)).join(', ');
  return (
    <span className="date-band" title={words}>
      {words}
    </span>
  );
}
