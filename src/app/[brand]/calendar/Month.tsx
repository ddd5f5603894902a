'use client';

import { memo, useMemo } from 'react';
import type { MonthDay } from '@/core/calendar/month';
import { byPlace, type CellItem } from '@/core/calendar/lanes';
import { dayPlace } from '@/core/calendar/drop';
import type { Slip } from '@/core/calendar/slip';
import type { Opening } from '@/core/rhythm/openings';
import type { LocalDate } from '@/core/time/plan';
import type { KnownDate } from '@/usecases/calendar/reading';
import { monthName, spokenDate, weekdayName } from '@/ui/format';
import { CalendarSlip } from './CalendarSlip';
import { DateBand } from './DayHead';
import { DropCell } from './DropCell';
import { OpeningSlip } from './OpeningSlip';
import { dayId } from './places';
import { useMarks, useTimetable } from './timetable';
import { BatchDaysHere, StepsHere } from './WorkingDates';

/** Whole weeks of a month, each day with its posts and openings in the order of the day. */
export const Month = memo(function Month({
  month,
  weeks,
  slips,
  openings,
  knownDates,
}: {
  month: LocalDate;
  weeks: readonly MonthDay[][];
  slips: readonly Slip[];
  openings: readonly Opening[];
  knownDates: readonly KnownDate[];
}) {
  const byDay = useMemo(() => {
    const days = new Map<LocalDate, CellItem<Slip>[]>();
    const add = (date: LocalDate, item: CellItem<Slip>) => days.set(date, [...(days.get(date) ?? []), item]);
    for (const slip of slips) if (slip.date) add(slip.date, { kind: 'post', post: slip });
    for (const opening of openings) add(opening.date, { kind: 'opening', opening });
    for (const items of days.values()) items.sort(byPlace);
    return days;
  }, [slips, openings]);
  return (
    <table className="month-grid" aria-label={monthName(month)}>
      <thead>
        <tr>
          {weeks[0]!.map((day) => (
            <th key={day.date} scope="col">
              {weekdayName(day.date)}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {weeks.map((week) => (
          <tr key={week[0]!.date}>
            {week.map((day) => (
              <MonthCell key={day.date} day={day} items={byDay.get(day.date) ?? NOTHING} knownDates={knownDates} />
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
});

const NOTHING: CellItem<Slip>[] = [];

function MonthCell({
  day,
  items,
  knownDates,
}: {
  day: MonthDay;
  items: readonly CellItem<Slip>[];
  knownDates: readonly KnownDate[];
}) {
  const { today } = useTimetable();
  const marksOf = useMarks();
  const isPast = day.date < today;
  const classes = [day.inMonth ? '' : 'is-outside', day.date === today ? 'is-today' : '', isPast ? 'is-past' : ''];
  return (
    <DropCell
      as="td"
      id={dayId(day.date)}
      place={dayPlace(day.date)}
      data-date={day.date}
      className={classes.filter(Boolean).join(' ')}
      aria-label={spokenDate(day.date)}
    >
      <div className="day-head">
        <b>{day.day}</b>
        {day.date === today && <span className="soft small-text">today</span>}
        <DateBand date={day.date} knownDates={knownDates} />
        {!isPast && (
          <button type="button" className="add" data-add={day.date} aria-label={`New post on ${spokenDate(day.date)}`}>
            + post
          </button>
        )}
      </div>
      {items.map((item) =>
        item.kind === 'post' ? (
          <CalendarSlip key={item.post.id} slip={item.post} marks={marksOf(item.post.id)} />
        ) : (
          <OpeningSlip key={item.opening.key} opening={item.opening} withSign line />
        ),
      )}
      <BatchDaysHere date={day.date} />
      <StepsHere date={day.date} />
    </DropCell>
  );
}
