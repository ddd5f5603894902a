'use client';

import Link from 'next/link';
import type { Instant } from '@/core/time/plan';
import type { Departure } from '@/usecases/delivery/loadDepartures';
import { dayAndTime } from '@/ui/format';
import { useShell } from '@/ui/shell';
import { HandOver } from '../../departures/HandOver';

/** What is to be posted by hand, or how it stands where it is not any more. */
export function ByHandScreen({ departure, now }: { departure: Departure; now: Instant }) {
  const { brand } = useShell();
  const { slip, handOver } = departure;
  return (
    <div className="place-body by-hand">
      {handOver ? (
        <HandOver departure={departure} now={now} />
      ) : (
        <section aria-label={slip.title}>
          <h1 dir="auto">{slip.title}</h1>
          <p>{stands(departure, brand.zone)}</p>
        </section>
      )}
      <p className="small-text">
        <Link href={`/${brand.slug}/calendar?post=${slip.id}`} prefetch={false}>
          Open the post
        </Link>{' '}
        ·{' '}
        <Link href={`/${brand.slug}/departures`} prefetch={false}>
          All departures
        </Link>
      </p>
    </div>
  );
}

function stands({ slip, publishedAt, fitness }: Departure, zone: string): string {
  if (publishedAt) return `It is out since ${dayAndTime(publishedAt, zone)}. There is nothing left to do.`;
  if (slip.stage === 'setAside') return 'It was set aside: it is not to be posted.';
  if (fitness === 'heldWithAll') return 'All of this brand is on hold: it is not to be posted until that is released.';
  return fitness === 'notFit' || slip.stage !== 'scheduled'
    ? 'It is not scheduled: it is not to be posted by hand yet.'
    : 'Bimlo sends it by itself: it is not to be posted by hand.';
}
