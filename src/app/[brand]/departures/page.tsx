import type { Metadata } from 'next';
import { brandOfPage } from '@/app/server/brand';
import { DEPARTURE_SORTS, SENDERS, TIMETABLE_VIEWS } from '@/core/delivery/timetable';
import { readDate } from '@/core/time/plan';
import { loadTimetable } from '@/usecases/delivery/loadDepartures';
import { loadHold } from '@/usecases/delivery/holdAll';
import { loadRestore } from '@/usecases/delivery/restores';
import { DepartureBoard } from './DepartureBoard';

export const metadata: Metadata = { title: 'Departures' };

const oneOf = <T extends string>(known: readonly T[], given: string | null): T | null =>
  known.find((value) => value === given) ?? null;

/** What leaves, when, on what channel, fit to go or why not: the stretch and the part of it that the address asks for. */
export default async function DeparturesPage({
  params,
  searchParams,
}: {
  params: Promise<{ brand: string }>;
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  const { app, db, brand, channels, now, today } = await brandOfPage((await params).brand);
  const query = await searchParams;
  const get = (name: string) => (typeof query[name] === 'string' ? query[name] : null);
  const channel = channels.find(({ id }) => id === get('channel'));
  const at = readDate(get('at') ?? '');
  const ask = {
    view: oneOf(TIMETABLE_VIEWS, get('show')) ?? 'days',
    at: at.ok ? at.value : today,
    channels: channel ? [channel.id] : [],
    sender: oneOf(SENDERS, get('sent')),
    sort: oneOf(DEPARTURE_SORTS, get('status')),
  };
  return (
    <DepartureBoard
      timetable={await loadTimetable(db, brand, now, ask)}
      ask={ask}
      trouble={await app.trouble()}
      restore={await loadRestore(db, brand)}
      hold={await loadHold(db, brand.id, now)}
      now={now}
      today={today}
    />
  );
}
