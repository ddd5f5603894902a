'use client';

import { memo, useMemo, useState } from 'react';
import { cellKey, layOutLanes, type LaneCell } from '@/core/calendar/lanes';
import type { Slip } from '@/core/calendar/slip';
import type { Horizon } from '@/core/rhythm/horizon';
import type { Opening } from '@/core/rhythm/openings';
import type { LocalDate } from '@/core/time/plan';
import type { KnownDate } from '@/usecases/calendar/reading';
import { CallSign } from '@/ui/CallSign';
import { HorizonBar } from '@/ui/HorizonBar';
import { useShell } from '@/ui/shell';
import { spokenDate } from '@/ui/format';
import { CalendarSlip } from './CalendarSlip';
import { DayHead } from './DayHead';
import { DropCell } from './DropCell';
import { OpeningSlip } from './OpeningSlip';
import { laneId, lanePlace } from './places';
import { useDensity } from './useDensity';
import { useMarks, useTimetable, type ShownChannel } from './timetable';
import { StepsHere } from './WorkingDates';
import { WordButton } from '@/ui/WordButton';
import { TermHint } from '@/ui/TermHint';

/** Items a cell shows before it counts the rest. */
const ROOM = { slip: 8, line: 14 };

/** A row per channel and a column per day, for one week or two; in lines of times where there is no room for more. */
export const Lanes = memo(function Lanes({
  dates,
  lanes,
  slips,
  openings,
  asked,
  horizons,
  knownDates,
  onMore,
}: {
  dates: readonly LocalDate[];
  lanes: readonly ShownChannel[];
  slips: readonly Slip[];
  /** Openings that are not filled. */
  openings: readonly Opening[];
  /** All openings of these days, filled or not: they name the days. */
  asked: readonly Opening[];
  horizons: readonly Horizon[];
  knownDates: readonly KnownDate[];
  onMore: (date: LocalDate, channelId: string) => void;
}) {
  const { today, look } = useTimetable();
  const { brand } = useShell();
  const [table, setTable] = useState<HTMLTableElement | null>(null);
  const { line, isTight } = useDensity(table, dates.length, look.density);
  const cells = useMemo(() => layOutLanes(slips, openings, line ? ROOM.line : ROOM.slip), [slips, openings, line]);
  const horizonOf = useMemo(() => new Map(horizons.map((horizon) => [horizon.channelId, horizon])), [horizons]);
  return (
    <table
      ref={setTable}
      className={`lanes${line ? ' is-line' : ''}${isTight ? ' is-tight' : ''}`}
      aria-label="Posts by channel and day"
    >
      <thead>
        <tr>
          <th scope="col" className="lane-head soft">
            <TermHint term="horizon">Horizon</TermHint>
          </th>
          {dates.map((date) => (
            <DayHead key={date} date={date} knownDates={knownDates} line={line} openings={asked} />
          ))}
        </tr>
      </thead>
      <tbody>
        {lanes.map((lane) => (
          <tr key={lane.id}>
            <th scope="row" className="lane-head">
              <span className="lane-name">
                <CallSign sign={lane.callSign} color={lane.color} />
                <span dir="auto" className="name">
                  {lane.name}
                </span>
              </span>
              <HorizonBar
                horizon={horizonOf.get(lane.id)}
                today={today}
                rhythmAt={`/${brand.slug}/settings/rhythm?channel=${lane.id}`}
              />
            </th>
            {dates.map((date) => (
              <LaneDay
                key={date}
                channel={lane}
                date={date}
                cell={cells.get(cellKey(lane.id, date))}
                line={line}
                onMore={onMore}
              />
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
});

function LaneDay({
  channel,
  date,
  cell,
  line,
  onMore,
}: {
  channel: ShownChannel;
  date: LocalDate;
  cell: LaneCell<Slip> | undefined;
  line: boolean;
  onMore: (date: LocalDate, channelId: string) => void;
}) {
  const { todayOf } = useTimetable();
  const marksOf = useMarks();
  const today = todayOf(channel.brandId);
  return (
    <DropCell
      as="td"
      id={laneId(channel.id, date)}
      place={lanePlace(channel.id, date)}
      data-date={date}
      data-channel={channel.id}
      className={date < today ? 'is-past' : date === today ? 'is-today' : ''}
      aria-label={`${channel.name}, ${spokenDate(date)}`}
    >
      {cell?.items.map((item) =>
        item.kind === 'post' ? (
          <CalendarSlip key={item.post.id} slip={item.post} marks={marksOf(item.post.id)} line={line} inLane />
        ) : (
          <OpeningSlip key={item.opening.key} opening={item.opening} line={line} />
        ),
      )}
      <StepsHere date={date} channelId={channel.id} line={line} />
      {cell && cell.hidden > 0 && (
        <WordButton className="more" onClick={() => onMore(date, channel.id)}>
          {cell.hidden} more
        </WordButton>
      )}
      {date >= today && (
        <button
          type="button"
          className="add"
          data-add={date}
          data-channel={channel.id}
          aria-label={`New post on ${channel.name}, ${spokenDate(date)}`}
        >
          +
        </button>
      )}
    </DropCell>
  );
}
