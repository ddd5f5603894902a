'use client';

import Link from 'next/link';
import { Fragment } from 'react';
import Table from 'react-bootstrap/Table';
import { SENDER_LABELS } from '@/core/delivery/timetable';
import { FORMAT_LABELS } from '@/core/rulesheets/types';
import type { Instant, LocalDate } from '@/core/time/plan';
import type { Departure } from '@/usecases/delivery/loadDepartures';
import { CallSign } from '@/ui/CallSign';
import { clockTime, dayMonth } from '@/ui/format';
import { useShell } from '@/ui/shell';
import { DepartureStatus } from './DepartureStatus';

/** Lines of the timetable under one name: those of a day, in today's with a line for now, or of several. */
export function DepartureTable({
  caption,
  departures,
  day = null,
  isDated = false,
  now,
  today,
  onHandOver,
}: {
  caption: string;
  departures: readonly Departure[];
  /** The day they are of; null where they are of several. */
  day?: LocalDate | null;
  /** Each says its day. */
  isDated?: boolean;
  now: Instant;
  today: LocalDate;
  onHandOver: (postId: string) => void;
}) {
  const { brand, channels } = useShell();
  const wall = clockTime(now, brand.zone);
  const firstToCome = day === today ? departures.findIndex(({ slip }) => (slip.time ?? '99:99') > wall) : -1;
  const nowRow = (
    <tr className="is-now">
      <td colSpan={3}>{wall} now</td>
      <td />
      <td className="only-wide" />
    </tr>
  );
  return (
    <Table bsPrefix="timetable" className={isDated ? 'is-day is-dated' : 'is-day'}>
      <caption>{caption}</caption>
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
          const { slip, fitness, sender } = departure;
          const channel = channels.find((candidate) => candidate.id === slip.channelId);
          return (
            <Fragment key={slip.id}>
              {index === firstToCome && nowRow}
              <tr className={fitness === 'out' ? 'is-out' : undefined} data-departure={slip.id} data-fitness={fitness}>
                <td className="figures">
                  {isDated && <div>{dayMonth(slip.date!)}</div>}
                  {slip.time ?? '–'}
                </td>
                <td>
                  <CallSign sign={slip.callSign} color={channel?.color ?? ''} name={channel?.name} />
                </td>
                <td className="what">
                  <Link dir="auto" href={`/${brand.slug}/calendar?post=${slip.id}&date=${slip.date}`} prefetch={false}>
                    {slip.title}
                  </Link>
                  <div className="soft small-text">{FORMAT_LABELS[slip.format]}</div>
                </td>
                <td>{sender === 'byHand' ? <b>{SENDER_LABELS.byHand}</b> : SENDER_LABELS.bimlo}</td>
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
