'use client';

import dynamic from 'next/dynamic';
import { useMemo } from 'react';
import type { Change } from '@/core/calendar/change';
import type { Grouping } from '@/core/calendar/list';
import type { ListPeriod } from '@/core/calendar/listPeriod';
import type { Slip } from '@/core/calendar/slip';
import type { Opening } from '@/core/rhythm/openings';
import type { LocalDate, LocalTime } from '@/core/time/plan';
import type { Shell } from '@/ui/shell';
import type { CalendarView } from '@/usecases/calendar/loadCalendar';
import { Day } from './Day';
import { weekOf } from './heading';
import { Lanes } from './Lanes';
import { nameIn } from './makeTimetable';
import { Month } from './Month';
import { Stages } from './Stages';
import type { ViewName } from './view';

const List = dynamic(() => import('./List').then((module) => module.List));

/** Changes parts of the calendar's address. */
type ChangeQuery = (
  part: Record<string, string | null>,
  options?: { shallow?: boolean; history?: 'push' | 'replace' },
) => unknown;

/** The posts as the arrangement asked for shows them. */
export function Arrangement({
  asked,
  today,
  now,
  shown,
  lanes,
  openings,
  slips,
  isNarrow,
  fold,
  campaigns,
  onQuery,
  onChange,
  onWritten,
}: {
  asked: { arrangement: ViewName; date: LocalDate; weeks: 1 | 2 };
  today: LocalDate;
  /** The time on the wall of the brand's zone. */
  now: LocalTime;
  shown: CalendarView;
  lanes: Shell['channels'];
  /** Those that are not filled. */
  openings: readonly Opening[];
  slips: readonly Slip[];
  /** A sheet stands beside: two weeks become one. */
  isNarrow: boolean;
  /** Stages that are folded, by comma. */
  fold: string | null;
  campaigns: Shell['campaigns'];
  onQuery: ChangeQuery;
  onChange: (slips: readonly Slip[], change: Change) => void;
  /** Told of a post as it is after a text of it was written. */
  onWritten: (slip: Slip) => void;
}) {
  const folded = useMemo(() => new Set((fold ?? '').split(',').filter(Boolean)), [fold]);
  switch (asked.arrangement) {
    case 'lanes':
      return (
        <Lanes
          dates={isNarrow && asked.weeks === 2 ? shown.dates.slice(...weekOf(shown.dates, asked.date)) : shown.dates}
          lanes={lanes}
          slips={slips}
          openings={openings}
          asked={shown.openings}
          horizons={shown.horizons}
          knownDates={shown.knownDates}
          onMore={(on) => void onQuery({ as: 'day', date: on })}
        />
      );
    case 'month':
      return (
        <Month month={asked.date} weeks={shown.weeks} slips={slips} openings={openings} knownDates={shown.knownDates} />
      );
    case 'day':
      return (
        <Day
          date={asked.date}
          now={asked.date === today ? now : null}
          slips={slips}
          openings={openings}
          knownDates={shown.knownDates}
        />
      );
    case 'stages':
      return (
        <Stages
          slips={slips}
          counts={shown.stageCounts}
          folded={folded}
          onFold={(stage) => {
            const next = new Set(folded);
            if (!next.delete(stage)) next.add(stage);
            void onQuery({ fold: [...next].join(',') || null }, { shallow: true, history: 'replace' });
          }}
        />
      );
    case 'list':
      return (
        <List
          slips={slips}
          pieceTitles={shown.pieceTitles}
          campaignName={nameIn(campaigns)}
          isCut={shown.isCut}
          date={asked.date}
          onPeriod={(period: ListPeriod) => void onQuery({ period: period === 'around' ? null : period })}
          onSort={(sort) => void onQuery({ sort: sort === 'date' ? null : sort }, { shallow: true })}
          onGroup={(group: Grouping) => void onQuery({ group: group === 'day' ? null : group }, { shallow: true })}
          onShape={(part, shape) => void onQuery({ [part]: shape }, { shallow: true, history: 'replace' })}
          onChange={onChange}
          onWritten={onWritten}
        />
      );
  }
}
