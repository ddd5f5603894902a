'use client';

import { memo } from 'react';
import { useDroppable } from '@dnd-kit/core';
import type { MonthDay } from '@/core/calendar/month';
import type { Slip } from '@/core/calendar/slip';
import { spokenDate } from '@/ui/format';
import { LiftableSlip } from './LiftableSlip';
import { dayId } from './dragging';

/** A day of the month with its slips: takes what is dropped on it. */
export const DayCell = memo(function DayCell({
  day,
  today,
  slips,
  colors,
  openId,
  unsaved,
  refusing,
  onOpen,
  onAdd,
}: {
  day: MonthDay;
  today: string;
  slips: readonly Slip[];
  colors: ReadonlyMap<string, string>;
  openId: string | null;
  unsaved: ReadonlySet<string>;
  /** What hovers over it may not be dropped here. */
  refusing: boolean;
  onOpen: (id: string) => void;
  onAdd: (date: string) => void;
}) {
  const { setNodeRef, isOver } = useDroppable({ id: dayId(day.date) });
  const isPast = day.date < today;
  const classes = [
    day.inMonth ? '' : 'is-outside',
    day.date === today ? 'is-today' : '',
    isPast ? 'is-past' : '',
    isOver ? (refusing ? 'is-refusing' : 'is-over') : '',
  ];
  return (
    <td
      ref={setNodeRef}
      data-date={day.date}
      className={classes.filter(Boolean).join(' ') || undefined}
      aria-label={spokenDate(day.date)}
    >
      <div className="day-head">
        <b>{day.day}</b>
        {day.date === today && <span className="soft small-text">today</span>}
        {!isPast && (
          <button
            type="button"
            className="add"
            onClick={() => onAdd(day.date)}
            aria-label={`New post on ${spokenDate(day.date)}`}
          >
            + post
          </button>
        )}
      </div>
      {slips.map((slip) => (
        <LiftableSlip
          key={slip.id}
          slip={slip}
          color={colors.get(slip.channelId) ?? 'currentcolor'}
          open={slip.id === openId}
          unsaved={unsaved.has(slip.id)}
          onOpen={onOpen}
        />
      ))}
    </td>
  );
});
