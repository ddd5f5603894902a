'use client';

import { memo } from 'react';
import { askedFor } from '@/core/rhythm/entry';
import type { Opening } from '@/core/rhythm/openings';
import { CallSign } from '@/ui/CallSign';
import { spokenDate } from '@/ui/format';
import { useMay } from '@/ui/shell';
import { DropCell } from './DropCell';
import { openingId, openingPlace } from './places';
import { useTimetable } from './timetable';

const timeWords = ({ time, until }: Opening): string => (until ? `between ${time} and ${until}` : time);

/** An opening that asks to be filled: takes what is dropped on it, and starts a post when it is pressed. */
export const OpeningSlip = memo(function OpeningSlip({
  opening,
  line = false,
  withSign = false,
}: {
  opening: Opening;
  line?: boolean;
  withSign?: boolean;
}) {
  const { channels } = useTimetable();
  const mayStart = useMay()('changePosts');
  const channel = channels.get(opening.channelId);
  const asked = askedFor(opening);
  const name = `Opening on ${channel?.name ?? 'a channel'}, ${spokenDate(opening.date)} ${timeWords(opening)}${asked ? `, ${asked}` : ''}${mayStart ? '. Start a post' : ''}`;
  return (
    <DropCell id={openingId(opening.key)} place={openingPlace(opening)} className={`opening${line ? ' is-line' : ''}`}>
      <button
        type="button"
        data-opening={opening.key}
        aria-label={name}
        title={line ? asked || 'opening' : undefined}
        disabled={!mayStart}
      >
        <span className="slip-line">
          {withSign && channel && <CallSign sign={channel.callSign} color={channel.color} name={channel.name} />}
          <span className="slip-time">
            {opening.time}
            {opening.until && `–${opening.until}`}
          </span>
        </span>
        {!line && asked && <span className="slip-title">{asked}</span>}
      </button>
    </DropCell>
  );
});
