'use client';

import { Weekdays } from '@/ui/Weekdays';
import { weekdayWord, type Recurrence } from '@/core/rhythm/entry';

const ALL_DAYS = [1, 2, 3, 4, 5, 6, 7];

/** The weekdays, Monday first. */
export const WEEKDAY_OPTIONS = ALL_DAYS.map((day) => (
  <option key={day} value={day}>
    {weekdayWord(day)}
  </option>
));

/** Which of its weekdays in a month. */
export const NTH_OPTIONS = (
  <>
    <option value={1}>first</option>
    <option value={2}>second</option>
    <option value={3}>third</option>
    <option value={4}>fourth</option>
    <option value={-1}>last</option>
  </>
);

/** How often, and on which day. */
export function RecurrenceFields({
  name,
  recurrence,
  onChange,
  mostWeeks,
}: {
  /** Whose it is, for screen readers: “Entry 2”. */
  name: string;
  recurrence: Recurrence;
  onChange: (recurrence: Recurrence) => void;
  /** Weeks between two rounds at most. */
  mostWeeks: number;
}) {
  const weekday = 'weekday' in recurrence ? recurrence.weekday : 1;
  return (
    <span className="recurrence">
      <select
        aria-label={`${name}: how often`}
        value={recurrence.kind}
        onChange={(event) =>
          onChange(
            event.target.value === 'daily'
              ? { kind: 'daily', except: [] }
              : event.target.value === 'weekly'
                ? { kind: 'weekly', weekday, every: 1 }
                : event.target.value === 'monthlyWeekday'
                  ? { kind: 'monthlyWeekday', weekday, nth: 1 }
                  : { kind: 'monthlyDate', day: 1 },
          )
        }
      >
        <option value="daily">daily</option>
        <option value="weekly">weekly</option>
        <option value="monthlyWeekday">monthly, a weekday</option>
        <option value="monthlyDate">monthly, a date</option>
      </select>
      {recurrence.kind === 'monthlyWeekday' && (
        <select
          aria-label={`${name}: which of the month`}
          value={recurrence.nth}
          onChange={(event) => onChange({ ...recurrence, nth: Number(event.target.value) as 1 })}
        >
          {NTH_OPTIONS}
        </select>
      )}
      {'weekday' in recurrence && (
        <select
          aria-label={`${name}: weekday`}
          value={recurrence.weekday}
          onChange={(event) => onChange({ ...recurrence, weekday: Number(event.target.value) })}
        >
          {WEEKDAY_OPTIONS}
        </select>
      )}
      {recurrence.kind === 'monthlyDate' && (
        <select
          aria-label={`${name}: day of the month`}
          value={recurrence.day}
          onChange={(event) => onChange({ ...recurrence, day: Number(event.target.value) })}
        >
          {Array.from({ length: 31 }, (_, index) => (
            <option key={index} value={index + 1}>
              {index + 1}
            </option>
          ))}
          <option value={-1}>last day</option>
        </select>
      )}
      {recurrence.kind === 'daily' && (
        <Weekdays
          legend="on"
          chosen={ALL_DAYS.filter((day) => !recurrence.except.includes(day))}
          onChange={(on) => onChange({ kind: 'daily', except: ALL_DAYS.filter((day) => !on.includes(day)) })}
        />
      )}
      {recurrence.kind === 'weekly' && (
        <label>
          every{' '}
          <input
            type="number"
            min={1}
            max={mostWeeks}
            aria-label={`${name}: every how many weeks`}
            value={recurrence.every}
            onChange={(event) => onChange({ ...recurrence, every: Number(event.target.value) })}
          />{' '}
          {recurrence.every === 1 ? 'week' : 'weeks'}
        </label>
      )}
    </span>
  );
}
