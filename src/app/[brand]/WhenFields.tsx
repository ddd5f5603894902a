'use client';

import { useState, type ReactNode } from 'react';
import Form from 'react-bootstrap/Form';
import type { LocalDate, LocalTime } from '@/core/time/plan';
import { readTypedTime } from '@/core/time/typed';
import { shortDate } from '@/ui/format';
import { ZoneWord } from '@/ui/ZoneWord';
import { DateField } from '@/ui/DateField';
import { Field } from '@/ui/Field';

/** When a post is planned for, as it is typed. */
interface When {
  /** What cannot be read as a time is sent as it stands, so that the refusal names it. */
  plan: { date: LocalDate | null; time: string | null };
  /** The day and time as people say them; null without a day. */
  words: string | null;
  isBadTime: boolean;
  fields: ReactNode;
}

/** What planning then does: “for Thu 26 Nov”. */
export const planWords = ({ words }: When): string => (words === null ? 'without a date' : `for ${words}`);

/**
 * The fields for a date, and for a time on it.
 *
 * @param id begins the ids of the two fields
 */
export function useWhen(
  id: string,
  startDate: LocalDate | null,
  startTime: LocalTime | null | undefined,
  timeLabel: ReactNode = (
    <>
      Time, if it is settled
      <ZoneWord />
    </>
  ),
): When {
  const [date, setDate] = useState(startDate ?? '');
  const [time, setTime] = useState(startTime ?? '');
  const read = readTypedTime(time);
  const isBadTime = date !== '' && time.trim() !== '' && read === null;
  return {
    plan: { date: date || null, time: date === '' || time.trim() === '' ? null : (read ?? time) },
    words: date ? `${shortDate(date)}${read ? ` ${read}` : ''}` : null,
    isBadTime,
    fields: (
      <div className="d-flex-row">
        <div>
          <div className="form-label">Date</div>
          <DateField label="Date" value={date} onChange={setDate} />
        </div>
        <Field
          id={`${id}-time`}
          label={timeLabel}
          refusal={isBadTime && `“${time}” is not a time. Write hours and minutes, like 14:30.`}
        >
          <Form.Control
            dir="auto"
            value={time}
            placeholder="14:30"
            disabled={date === ''}
            onChange={(event) => setTime(event.target.value)}
          />
        </Field>
      </div>
    ),
  };
}
