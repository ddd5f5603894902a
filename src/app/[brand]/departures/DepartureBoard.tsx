'use client';

import Alert from 'react-bootstrap/Alert';
import { useState } from 'react';
import Link from 'next/link';
import type { Instant, LocalDate } from '@/core/time/plan';
import { sortOf, totalWords } from '@/core/delivery/timetable';
import { addDays } from '@/core/time/days';
import type { Departure, Timetable, TimetableAsk } from '@/usecases/delivery/loadDepartures';
import type { ShownHold } from '@/usecases/delivery/holdAll';
import type { OpenRestore } from '@/usecases/delivery/restores';
import { spokenDate } from '@/ui/format';
import { Only, useShell } from '@/ui/shell';
import { useRefresh } from '@/ui/useRefresh';
import { CarryOver } from './CarryOver';
import { DepartureTable } from './DepartureTable';
import { HandOver } from './HandOver';
import { HoldAll, HoldNotice } from './HoldAll';
import { RestoredNotice } from './RestoredNotice';
import { TimetableBar } from './TimetableBar';
import { TermHint } from '@/ui/TermHint';

/** How often the timetable is read anew, in milliseconds. */
const REFRESH_EVERY_MS = 4_000;

/** The timetable: what is missed, then one table a day, a line for now in today's, and the hand-over that is open beside it. */
export function DepartureBoard({
  timetable: { from, to, missed, lines },
  ask,
  trouble = null,
  restore = null,
  hold = null,
  now,
  today,
}: {
  timetable: Timetable;
  ask: TimetableAsk;
  /** Why nothing can be sent at present; null while all is well. */
  trouble?: string | null;
  /** That the data folder was restored, with what waits since; null while nothing does. */
  restore?: OpenRestore | null;
  /** That all of the brand is on hold; null while it is not. */
  hold?: ShownHold | null;
  now: Instant;
  today: LocalDate;
}) {
  const { brand } = useShell();
  const [chosen, setChosen] = useState<string | null>(null);

  useRefresh(REFRESH_EVERY_MS);

  const all = [...missed, ...lines];
  const handOver =
    all.find(({ slip, handOver: over }) => over && slip.id === chosen) ??
    all.find(({ fitness }) => fitness === 'handOver');
  const days = [...new Set(lines.map(({ slip }) => slip.date!))];
  const isFiltered = ask.channels.length > 0 || ask.sender !== null || ask.sort !== null;
  const isTodayWhole = from <= today && today <= to && !isFiltered && ask.view !== 'ready';
  const at = { now, today, onHandOver: setChosen };

  return (
    <>
      <header className="place-head departures-head">
        <h1>
          <TermHint term="departures">Departures</TermHint>
        </h1>
        <span className="soft" role="status">
          {spokenDate(today)}
          {isTodayWhole && <> · {standing(all, today)}</>}
        </span>
        <TimetableBar ask={ask} from={from} to={to} today={today}>
          {!hold && <HoldAll />}
        </TimetableBar>
      </header>
      <div className="place-body">
        {trouble && (
          <Alert variant="danger" className="notice is-wrong">
            {trouble}
          </Alert>
        )}
        {hold && <HoldNotice hold={hold} />}
        {restore && <RestoredNotice restore={restore} />}
        <div className={`departures${handOver ? '' : ' is-plain'}`}>
          <div>
            {missed.length > 0 && (
              <>
                <DepartureTable caption="Not sent on their day" departures={missed} isDated {...at} />
                <Only deed="changePosts">
                  <div className="carry-over-deed">
                    <CarryOver />
                  </div>
                </Only>
              </>
            )}
            {days.map((day) => (
              <DepartureTable
                key={day}
                caption={nameOf(day, today)}
                departures={lines.filter(({ slip }) => slip.date === day)}
                day={day}
                {...at}
              />
            ))}
            {lines.length === 0 ? (
              <div className="empty">
                <h2>{isFiltered ? 'Nothing of that in these days' : 'Nothing to send in these days'}</h2>
                <p>
                  {isFiltered ? (
                    'Choose other channels, or another status.'
                  ) : (
                    <>
                      Posts with a date show here.{' '}
                      <Link href={`/${brand.slug}/calendar`}>Plan some on the calendar.</Link>
                    </>
                  )}
                </p>
              </div>
            ) : (
              <p className="soft total-line">
                {totalWords(lines)}{' '}
                <Only deed="exchange">
                  <a
                    className="word small-text"
                    href={`/api/take-away?${new URLSearchParams({ brand: brand.slug, from, to })}`}
                    download
                  >
                    Take all of these days away as a ZIP
                  </a>
                </Only>
              </p>
            )}
          </div>
          {handOver && <HandOver key={handOver.slip.id} departure={handOver} now={now} />}
        </div>
        <p className="small-text">
          <Link href={`/${brand.slug}/departures/set-aside`} prefetch={false}>
            What was set aside
          </Link>
        </p>
      </div>
    </>
  );
}

/** How today stands, and what is in trouble or missed. */
function standing(all: readonly Departure[], today: LocalDate) {
  const todays = all.filter(({ slip }) => slip.date === today);
  const out = todays.filter(({ fitness }) => fitness === 'out').length;
  const failed = all.filter(({ slip, fitness }) => slip.date! >= today && sortOf(fitness) === 'trouble').length;
  const missed = all.filter(({ slip, fitness }) => slip.date! < today && fitness !== 'out').length;
  return (
    <>
      {todays.length - out} to send, {out} published
      {failed > 0 && <span className="wrong">, {failed} in trouble</span>}
      {missed > 0 && <span className="wrong">, {missed} not sent on their day</span>}
    </>
  );
}

function nameOf(day: LocalDate, today: LocalDate): string {
  if (day === today) return `Today, ${spokenDate(day)}`;
  return day === addDays(today, 1) ? `Tomorrow, ${spokenDate(day)}` : spokenDate(day);
}
