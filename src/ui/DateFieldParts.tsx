'use client';

import { parseDate, type CalendarDate } from '@internationalized/date';
import { ChevronLeft, ChevronRight, CalendarDays } from 'lucide-react';
import { useLayoutEffect, useRef, useState, type KeyboardEvent } from 'react';
import {
  Button,
  Calendar,
  CalendarCell,
  CalendarGrid,
  CalendarGridBody,
  CalendarGridHeader,
  CalendarHeaderCell,
  DateInput,
  DatePicker,
  DateSegment,
  Dialog,
  Group,
  Heading,
  Popover,
} from 'react-aria-components';
import type { DateFieldProps } from './DateField';
import { useShell } from './shell';

const WEEKDAYS = ['sun', 'mon', 'tue', 'wed', 'thu', 'fri', 'sat'] as const;

/** The date a text holds; null where it holds none. */
function dateOf(value: string): CalendarDate | null {
  return value === '' ? null : parseDate(value);
}

/** The parts of a `DateField`. */
export default function DateFieldParts({
  label,
  value,
  onChange,
  autoFocus,
  disabled,
  isInvalid,
  onKey,
  onBlur,
}: DateFieldProps) {
  const { brand } = useShell();
  const own = useRef<HTMLDivElement>(null);
  // A dialog keeps the focus within itself, so the month has to open inside it.
  const [dialog, setDialog] = useState<Element | null>(null);
  useLayoutEffect(() => setDialog(own.current!.closest('.modal')), []);

  // The parts keep keys to themselves, so they are heard on their way down; those of the month are its own.
  function hear(event: KeyboardEvent) {
    if (!(event.target as HTMLElement).matches('[role="spinbutton"]')) return;
    if (onKey) onKey(event);
    else if (event.key === 'Enter') event.currentTarget.closest('form')?.requestSubmit();
  }

  // Going from part to part, or into the month, is not leaving; where the focus goes is known only when it is there.
  const leave = () =>
    setTimeout(() => {
      const at = document.activeElement;
      if (own.current && !own.current.contains(at) && !at?.closest('.date-field-month')) onBlur?.();
    });

  return (
    <div ref={own} className="date-field" onKeyDownCapture={hear} onBlur={leave}>
      <DatePicker
        aria-label={label}
        value={dateOf(value)}
        onChange={(date) => onChange(date?.toString() ?? '')}
        autoFocus={autoFocus}
        isDisabled={disabled}
        isInvalid={isInvalid}
        shouldForceLeadingZeros
      >
        <Group className="date-field-box">
          <DateInput className="date-field-parts">
            {(segment) => <DateSegment segment={segment} className="date-field-part" />}
          </DateInput>
          <Button className="date-field-open" aria-label={`${label}: choose in a month`}>
            <CalendarDays size={14} aria-hidden="true" />
          </Button>
        </Group>
        <Popover className="date-field-month" offset={2} {...(dialog ? { UNSTABLE_portalContainer: dialog } : {})}>
          <Dialog>
            <Calendar firstDayOfWeek={WEEKDAYS[brand.weekStart % 7]}>
              <header>
                <Button slot="previous">
                  <ChevronLeft size={16} aria-hidden="true" />
                </Button>
                <Heading />
                <Button slot="next">
                  <ChevronRight size={16} aria-hidden="true" />
                </Button>
              </header>
              <CalendarGrid weekdayStyle="short">
                <CalendarGridHeader>{(day) => <CalendarHeaderCell>{day}</CalendarHeaderCell>}</CalendarGridHeader>
                <CalendarGridBody>{(date) => <CalendarCell date={date} />}</CalendarGridBody>
              </CalendarGrid>
            </Calendar>
          </Dialog>
        </Popover>
      </DatePicker>
    </div>
  );
}
