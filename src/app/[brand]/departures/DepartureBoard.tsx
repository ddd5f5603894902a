'use client';

import Alert from 'react-bootstrap/Alert';
import { Fragment, useState } from 'react';
import Link from 'next/link';
import type { Instant, LocalDate } from '@/core/time/plan';
import type { Departure } from '@/usecases/delivery/loadDepartures';
import type { OpenRestore } from '@/usecases/delivery/restores';
import { FORMAT_LABELS } from '@/core/rulesheets/types';
import { CallSign } from '@/ui/CallSign';
import { clockTime, spokenDate } from '@/ui/format';
import { useShell } from '@/ui/shell';
import { useRefresh } from '@/ui/useRefresh';
import { DepartureStatus } from './DepartureStatus';
import { HandOver } from './HandOver';
import { RestoredNotice } from './RestoredNotice';
import Table from 'react-bootstrap/Table';
import { TermHint } from '@/ui/TermHint';

/** How often the timetable is read anew, in milliseconds. */
const REFRESH_EVERY_MS = 4_000;

/** The timetable: one table a day, a line for now in today's, and the hand-over that is open beside it. */
export function DepartureBoard({
  departures,
  trouble = null,
  restore = null,
  now,
  today,
  tomorrow,
}: {
  departures: readonly Departure[];
  /** Why nothing can be sent at present; null while all is well. */
  trouble?: string | null;
  /** That the data folder was restored, with what waits since; null while nothing does. */
  restore?: OpenRestore | null;
  now: Instant;
  today: LocalDate;
  tomorrow: LocalDate;
}) {
  const { brand } = useShell();
  const [chosen, setChosen] = useState<string | null>(null);

  useRefresh(REFRESH_EVERY_MS);

  const todays = departures.filter(({ slip }) => slip.date === today);
  const failed = departures.filter(
    ({ slip, fitness }) => slip.date! >= today && ['failed', 'held', 'unknown'].includes(fitness),
  ).length;
  const missed = departures.filter(({ slip }) => slip.date! < today).length;
  const out = todays.filter(({ fitness }) => fitness === 'out').length;
  const handOver =
    departures.find(({ slip, handOver: over }) => over && slip.id === chosen) ??
    departures.find(({ fitness }) => fitness === 'handOver');
  const days = [...new Set(departures.map(({ slip }) => slip.date!))];

  return (
    <>
      <header className="place-head">
        <h1>
          <TermHint term="departures">Departures</TermHint>
        </h1>
        <span className="soft" role="status">
          {spokenDate(today)} · {todays.length - out} to send, {out} published
          {failed > 0 && <span className="wrong">, {failed} in trouble</span>}
          {missed > 0 && <span className="wrong">, {missed} not sent on their day</span>}
        </span>
      </header>
      <div className="place-body">
        {trouble && (
          <Alert variant="danger" className="notice is-wrong">
            {trouble}
          </Alert>
        )}
        {restore && <RestoredNotice restore={restore} />}
        {departures.length === 0 && (
          <div className="empty">
            <h2>Nothing to send in the next days</h2>
            <p>
              Posts with a date show here. <Link href={`/${brand.slug}/calendar`}>Plan some on the calendar.</Link>
            </p>
          </div>
        )}
        <div className={`departures${handOver ? '' : ' is-plain'}`}>
          <div>
            {days.map((day) => (
              <DayTable
                key={day}
                day={day}
                departures={departures.filter(({ slip }) => slip.date === day)}
                now={now}
                today={today}
                tomorrow={tomorrow}
                onHandOver={setChosen}
              />
            ))}
          </div>
          {handOver && <HandOver key={handOver.slip.id} departure={handOver} />}
        </div>
      </div>
    </>
  );
}

function DayTable({
  day,
  departures,
  now,
  today,
  tomorrow,
  onHandOver,
}: {
  day: LocalDate;
  departures: readonly Departure[];
  now: Instant;
  today: LocalDate;
  tomorrow: LocalDate;
  onHandOver: (postId: string) => void;
}) {
  const { brand, channels } = useShell();
  const wall = clockTime(now, brand.zone);
  const firstToCome = day === today ? departures.findIndex(({ slip }) => (slip.time ?? '99:99') > wall) : -1;
  const name =
    day === today ? `Today, ${spokenDate(day)}` : day === tomorrow ? `Tomorrow, ${spokenDate(day)}` : spokenDate(day);
  const nowRow = (
    <tr className="is-now">
      <td colSpan={3}>{wall} now</td>
      <td />
      <td className="only-wide" />
    </tr>
  );
  return (
    <Table bsPrefix="timetable" className="is-day">
      <caption>{name}</caption>
      <thead>
        <tr>
          <th scope="col">Time</th>
          <th scope="col">Channel</th>
          <th scope="col">Post</th>
          <th scope="col">Sent</th>
          <th scope="col">Status</th>
        </tr>
      </thead>
      <tbody>
        {departures.map((departure, index) => {
          const { slip, fitness } = departure;
          const channel = channels.find((candidate) => candidate.id === slip.channelId);
          const isByHand = slip.delivery ? slip.delivery.mode === 'byHand' : channel?.sheet.automatic === false;
          return (
            <Fragment key={slip.id}>
              {index === firstToCome && nowRow}
              <tr className={fitness === 'out' ? 'is-out' : undefined} data-departure={slip.id} data-fitness={fitness}>
                <td className="figures">{slip.time ?? '–'}</td>
                <td>
                  <CallSign sign={slip.callSign} color={channel?.color ?? ''} name={channel?.name} />
                </td>
                <td className="what">
                  <Link dir="auto" href={`/${brand.slug}/calendar?post=${slip.id}&date=${day}`} prefetch={false}>
                    {slip.title}
                  </Link>
                  <div className="soft small-text">{FORMAT_LABELS[slip.format]}</div>
                </td>
                <td>{isByHand ? <b>by hand</b> : 'by Bimlo'}</td>
                <td>
                  <DepartureStatus departure={departure} onHandOver={() => onHandOver(slip.id)} />
                </td>
              </tr>
            </Fragment>
          );
        })}
        {day === today && firstToCome < 0 && nowRow}
      </tbody>
    </Table>
  );
}
