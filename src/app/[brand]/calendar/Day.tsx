'use client';

import { memo, useMemo, useState, type CSSProperties } from 'react';
import { layOutDay, shownHours, type DayBlock } from '@/core/calendar/day';
import { dayPlace } from '@/core/calendar/drop';
import type { Slip } from '@/core/calendar/slip';
import type { Opening } from '@/core/rhythm/openings';
import { minutesOf } from '@/core/time/days';
import type { LocalDate, LocalTime } from '@/core/time/plan';
import type { KnownDate } from '@/usecases/calendar/reading';
import { spokenDate } from '@/ui/format';
import { CalendarSlip } from './CalendarSlip';
import { DateBand } from './DayHead';
import { DropCell } from './DropCell';
import { OpeningSlip } from './OpeningSlip';
import { dayId, hourId, hourPlace } from './places';
import { useMarks, useTimetable } from './timetable';
import { BatchDaysHere, StepsHere } from './WorkingDates';
import { WordButton } from '@/ui/WordButton';

/** Pixels an hour is high, and minutes of height a slip takes. */
const HOUR_PX = 56;
const SLIP_MINUTES = 60;

type Timed = { time: LocalTime } & ({ kind: 'post'; slip: Slip } | { kind: 'opening'; opening: Opening });

/** One day by the hour: what overlaps stands side by side, what has no time stands above. */
export const Day = memo(function Day({
  date,
  now,
  slips,
  openings,
  knownDates,
}: {
  date: LocalDate;
  /** The time on the wall, where the day is today. */
  now: LocalTime | null;
  slips: readonly Slip[];
  openings: readonly Opening[];
  knownDates: readonly KnownDate[];
}) {
  const { today } = useTimetable();
  const marksOf = useMarks();
  const [unfolded, setUnfolded] = useState(false);
  const { blocks, untimed, hours } = useMemo(() => {
    const here = slips.filter((slip) => slip.date === date);
    const timed: Timed[] = [
      ...here.flatMap((slip): Timed[] => (slip.time ? [{ kind: 'post', slip, time: slip.time }] : [])),
      ...openings
        .filter((opening) => opening.date === date)
        .map((opening): Timed => ({ kind: 'opening', opening, time: opening.time })),
    ];
    return {
      blocks: layOutDay(timed, SLIP_MINUTES),
      untimed: here.filter((slip) => slip.time === null),
      hours: shownHours([...timed.map(({ time }) => time), ...(now ? [now] : [])]),
    };
  }, [slips, openings, date, now]);
  const { first, last } = unfolded ? { first: 0, last: 23 } : hours;
  const top = (minutes: number) => ((minutes - first * 60) / 60) * HOUR_PX;
  const shown = Array.from({ length: last - first + 1 }, (_, index) => first + index);
  return (
    <div className="day-view">
      <DropCell
        id={dayId(date)}
        place={dayPlace(date)}
        data-date={date}
        className={`day-untimed${date < today ? ' is-past' : ''}`}
        aria-label={`${spokenDate(date)}, no time`}
      >
        <span className="soft small-text">No time yet</span>
        <DateBand date={date} knownDates={knownDates} />
        <div className="day-untimed-slips">
          {untimed.map((slip) => (
            <CalendarSlip key={slip.id} slip={slip} marks={marksOf(slip.id)} />
          ))}
          <BatchDaysHere date={date} />
          <StepsHere date={date} />
          {untimed.length === 0 && <span className="soft small-text">Nothing</span>}
        </div>
      </DropCell>
      {(first > 0 || unfolded) && (
        <WordButton className="fold soft" onClick={() => setUnfolded(!unfolded)}>
          {unfolded
            ? 'Fold empty hours'
            : `00:00 – ${String(first).padStart(2, '0')}:00 and after ${String(last + 1).padStart(2, '0')}:00 are empty: show them`}
        </WordButton>
      )}
      <div className="hours" style={{ height: shown.length * HOUR_PX }}>
        {shown.map((hour) => (
          <DropCell
            key={hour}
            id={hourId(hour)}
            place={hourPlace(date, hour)}
            className="hour"
            style={{ top: top(hour * 60), height: HOUR_PX }}
            aria-label={`${String(hour).padStart(2, '0')}:00`}
          >
            <span className="figures soft">{String(hour).padStart(2, '0')}:00</span>
          </DropCell>
        ))}
        {now && date === today && <div className="now-line" style={{ top: top(minutesOf(now)) }} aria-hidden="true" />}
        {blocks.map((block) => (
          <div key={keyOf(block)} className="day-block" style={placeOfBlock(block, top(block.start))}>
            {block.item.kind === 'post' ? (
              <CalendarSlip slip={block.item.slip} marks={marksOf(block.item.slip.id)} />
            ) : (
              <OpeningSlip opening={block.item.opening} withSign />
            )}
          </div>
        ))}
      </div>
    </div>
  );
});

const keyOf = ({ item }: DayBlock<Timed>): string => (item.kind === 'post' ? item.slip.id : item.opening.key);

const placeOfBlock = (block: DayBlock<Timed>, top: number): CSSProperties => ({
  top,
  maxHeight: HOUR_PX,
  left: `calc(56px + (100% - 64px) * ${block.column} / max(${block.columns}, var(--least-columns)))`,
  width: `calc((100% - 64px) / max(${block.columns}, var(--least-columns)) - 4px)`,
});
