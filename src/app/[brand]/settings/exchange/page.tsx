import type { Metadata } from 'next';
import { brandOfPage } from '@/app/server/brand';
import { BringIn } from './BringIn';

export const metadata: Metadata = { title: 'Import and export' };

/** Brings posts in from a CSV file, and takes them out as CSV or iCalendar. */
export default async function ExchangePage({ params }: { params: Promise<{ brand: string }> }) {
  const { brand } = await brandOfPage((await params).brand);
  const href = `/api/calendar/export?brand=${brand.slug}`;
  return (
    <>
      <section>
        <h2>Export</h2>
        <p>
          Every post of {brand.name}:{' '}
          <a href={`${href}&file=csv`} download>
            as CSV
          </a>
          , for spreadsheets and to import again; or{' '}
          <a href={`${href}&file=ics`} download>
            as iCalendar
          </a>
          , for other calendars. The calendar’s own “Take out” takes what its filter shows.
        </p>
      </section>
      <section>
        <h2>Import</h2>
        <BringIn />
      </section>
    </>
  );
}
