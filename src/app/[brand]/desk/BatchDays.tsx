'use client';

import Link from 'next/link';
import { minutesWords } from '@/core/prep/load';
import type { BatchDayLine } from '@/usecases/prep/reading';
import { shortDate } from '@/ui/format';
import { Only, useShell } from '@/ui/shell';
import { TermHint } from '@/ui/TermHint';

/** The batch days ahead, and the way to another. */
export function BatchDays({ batchDays }: { batchDays: readonly BatchDayLine[] }) {
  const { brand, today } = useShell();
  return (
    <section aria-label="Batch days">
      <h2>
        <TermHint term="batchDay">Batch days</TermHint> <span className="figures soft">{batchDays.length}</span>
        <Only deed="planBatchDays">
          <Link className="small-text push" href={`/${brand.slug}/batch`} prefetch={false}>
            Plan one
          </Link>
        </Only>
      </h2>
      {batchDays.map(({ id, day, startsAt, name, steps, done, minutes }) => (
        <div className="desk-row" key={id}>
          <span className="figures when">
            {day === today ? 'today' : shortDate(day)} {startsAt}
          </span>
          <Link href={`/${brand.slug}/batch/${id}`} prefetch={false}>
            {name}
          </Link>
          <span className="push figures small-text soft">
            {done} of {steps} done, {minutesWords(minutes)}
          </span>
        </div>
      ))}
      {batchDays.length === 0 && <p className="soft">None ahead. Steps of one kind go quicker in one sitting.</p>}
    </section>
  );
}
