'use client';

import { weekdayWord } from '@/core/rhythm/entry';

/** The weekdays somebody works on, each ticked for itself. Weekdays are 1 for Monday to 7 for Sunday. */
export function Weekdays({
  legend,
  chosen,
  onChange,
}: {
  legend: string;
  chosen: readonly number[];
  onChange: (weekdays: number[]) => void;
}) {
  return (
    <fieldset className="weekdays mb-3">
      <legend className="form-label">{legend}</legend>
      {[1, 2, 3, 4, 5, 6, 7].map((day) => (
        <label key={day}>
          <input
            type="checkbox"
            checked={chosen.includes(day)}
            onChange={(event) =>
              onChange(
                event.target.checked ? [...chosen, day].sort((a, b) => a - b) : chosen.filter((one) => one !== day),
              )
            }
          />{' '}
          {weekdayWord(day).slice(0, 3)}
        </label>
      ))}
    </fieldset>
  );
}
