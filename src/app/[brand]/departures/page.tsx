import { addDays } from '@/core/time/days';
import type { Metadata } from 'next';
import { brandOfPage } from '@/app/server/brand';
import { loadDepartures } from '@/usecases/delivery/loadDepartures';
import { loadRestore } from '@/usecases/delivery/restores';
import { DepartureBoard } from './DepartureBoard';

export const metadata: Metadata = { title: 'Departures' };

/** What leaves, when, on what channel, fit to go or why not. */
export default async function DeparturesPage({ params }: { params: Promise<{ brand: string }> }) {
  const { app, db, brand, now, today } = await brandOfPage((await params).brand);
  return (
    <DepartureBoard
      departures={await loadDepartures(db, brand, now)}
      trouble={await app.trouble()}
      restore={await loadRestore(db, brand)}
      now={now}
      today={today}
      tomorrow={addDays(today, 1)}
    />
  );
}
