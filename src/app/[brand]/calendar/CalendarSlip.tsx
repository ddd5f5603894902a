'use client';

import { memo, type CSSProperties } from 'react';
import type { Slip } from '@/core/calendar/slip';
import { dayMonth } from '@/ui/format';
import { SlipFace, slipClass } from '@/ui/SlipFace';
import { LIFT_HELP_ID } from './Carrier';
import { MARKS, useTimetable } from './timetable';

/** A post on the calendar: opens when pressed, can be picked and lifted. */
export const CalendarSlip = memo(function CalendarSlip({
  slip,
  marks,
  line = false,
  inLane = false,
  dated = false,
}: {
  slip: Slip;
  /** As `useMarks` gives them. */
  marks: number;
  /** Line density: time and notches; the title on focus. */
  line?: boolean;
  /** The row carries the call sign. */
  inLane?: boolean;
  /** Shows its day as well. */
  dated?: boolean;
}) {
  const { channels, look, bandOf, ownerName, pillarName } = useTimetable();
  const band = bandOf(slip);
  const { facts } = look;
  const more = [
    facts.has('format') ? 'format' : '',
    facts.has('owner') ? ownerName(slip.ownerId) : '',
    facts.has('pillar') && slip.pillarId ? pillarName(slip.pillarId) : '',
  ];
  const isOpen = (marks & MARKS.open) > 0;
  const isPicked = (marks & MARKS.picked) > 0;
  return (
    <button
      type="button"
      className={slipClass(slip, {
        open: isOpen,
        unsaved: (marks & MARKS.unsaved) > 0,
        picked: isPicked,
        extra: (marks & MARKS.extra) > 0,
        line,
        band: band !== null,
      })}
      style={band === null ? undefined : ({ '--band': band } as CSSProperties)}
      data-post={slip.id}
      data-lift="post"
      aria-describedby={LIFT_HELP_ID}
      aria-current={isOpen || undefined}
      aria-pressed={isPicked || undefined}
      title={line ? slip.title : undefined}
    >
      <SlipFace
        slip={slip}
        color={band === null ? (channels.get(slip.channelId)?.color ?? 'currentcolor') : 'var(--ink)'}
        density={line ? 'line' : 'slip'}
        withSign={!inLane}
        day={dated && slip.date ? dayMonth(slip.date) : undefined}
        shows={facts}
        more={more}
      />
    </button>
  );
});
