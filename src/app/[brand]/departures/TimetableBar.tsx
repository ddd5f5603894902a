'use client';

import Link from 'next/link';
import type { ReactNode } from 'react';
import { parseAsString, useQueryStates } from 'nuqs';
import {
  DEPARTURE_SORTS,
  DEPARTURE_SORT_LABELS,
  SENDERS,
  SENDER_LABELS,
  stepOfView,
  TIMETABLE_LABELS,
  TIMETABLE_VIEWS,
} from '@/core/delivery/timetable';
import type { LocalDate } from '@/core/time/plan';
import type { TimetableAsk } from '@/usecases/delivery/loadDepartures';
import { monthName, spanName, spokenDate } from '@/ui/format';
import { useShell } from '@/ui/shell';

const PARTS = {
  show: parseAsString,
  at: parseAsString,
  channel: parseAsString,
  sent: parseAsString,
  status: parseAsString,
};

/** Which days of the timetable show, to step through them, and of whom and what. */
export function TimetableBar({
  ask: { view, at, channels: asked, sender, sort },
  from,
  to,
  today,
  children,
}: {
  ask: TimetableAsk;
  from: LocalDate;
  to: LocalDate;
  today: LocalDate;
  /** What stands at the end of the line. */
  children?: ReactNode;
}) {
  const { brand, channels } = useShell();
  const [parts, setParts] = useQueryStates(PARTS, { shallow: false, history: 'push' });
  const hrefOf = (change: Partial<Record<keyof typeof PARTS, string | null>>) => {
    const query = Object.entries({ ...parts, ...change }).filter((one): one is [string, string] => one[1] !== null);
    return `/${brand.slug}/departures${query.length > 0 ? `?${new URLSearchParams(query).toString()}` : ''}`;
  };
  const step = (by: -1 | 1) => hrefOf({ at: stepOfView(view, at, brand.weekStart, by) });
  const isNow = from <= today && today <= to;
  const choice = (label: string, part: keyof typeof PARTS, value: string | null, choices: [string, string][]) => (
    <select
      className="plain-select"
      aria-label={label}
      value={value ?? ''}
      onChange={(event) => void setParts({ [part]: event.target.value || null })}
    >
      <option value="">{label}</option>
      {choices.map(([id, name]) => (
        <option key={id} value={id}>
          {name}
        </option>
      ))}
    </select>
  );

  return (
    <>
      <nav className="arrangements push" aria-label="What shows">
        {TIMETABLE_VIEWS.map((one) => (
          <Link
            key={one}
            href={hrefOf({ show: one === 'days' ? null : one, at: null })}
            aria-current={one === view && isNow ? 'page' : undefined}
            prefetch={false}
          >
            {TIMETABLE_LABELS[one]}
          </Link>
        ))}
      </nav>
      <div className="calendar-bar">
        <span className="period">
          <Link className="step" href={step(-1)} aria-label="Days before" prefetch={false}>
            ‹
          </Link>
          <span>{view === 'month' ? monthName(from) : from === to ? spokenDate(from) : spanName(from, to)}</span>
          <Link className="step" href={step(1)} aria-label="Days after" prefetch={false}>
            ›
          </Link>
        </span>
        {choice(
          'all channels',
          'channel',
          asked[0] ?? null,
          channels.map(({ id, name }) => [id, name]),
        )}
        {choice(
          'by Bimlo or by hand',
          'sent',
          sender,
          SENDERS.map((one) => [one, SENDER_LABELS[one]]),
        )}
        {choice(
          'any status',
          'status',
          sort,
          DEPARTURE_SORTS.map((one) => [one, DEPARTURE_SORT_LABELS[one]]),
        )}
        <span className="push">{children}</span>
      </div>
    </>
  );
}
