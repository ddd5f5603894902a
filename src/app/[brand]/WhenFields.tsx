'use client';

import { useState, type ReactNode } from 'react';
import Form from 'react-bootstrap/Form';
import type { LocalDate, LocalTime } from '@/core/time/plan';
import { readTypedTime } from '@/core/time/typed';
import { shortDate } from '@/ui/format';
import { ZoneWord } from '@/ui/ZoneWord';
import { DateField } from '@/ui/DateField';

/**
 * When a post is planned for, as it is typed. What cannot be read as a time is sent as it stands, so that the refusal names
 * it.
 *
 * @param id begins the ids of the two fields
 */
export function useWhen(
  id: string,
  startDate: LocalDate,
  startTime: LocalTime | undefined,
): { plan: { date: LocalDate | null; time: string | null }; words: string; fields: ReactNode } {
  const [date, setDate] = useState(startDate);
  const [time, setTime] = useState(startTime ?? '');
  const read = readTypedTime(time);
  return {
    plan: { date: date || null, time: time.trim() === '' ? null : (read ?? time) },
    words: date ? `for ${shortDate(date)}${read ? ` ${read}` : ''}` : 'without a date',
    fields: (
      <div className="d-flex-row">
        <div>
          <div className="form-label">Date</div>
          <DateField label="Date" value={date} onChange={setDate} />
        </div>
        <Form.Group controlId={`${id}-time`}>
          <Form.Label>
            Time, if it is settled
            <ZoneWord />
          </Form.Label>
          <Form.Control dir="auto" value={time} placeholder="14:30" onChange={(event) => setTime(event.target.value)} />
        </Form.Group>
      </div>
    ),
  };
}
