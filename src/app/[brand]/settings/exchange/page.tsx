import type { Metadata } from 'next';
import { NotForYou } from '../NotForYou';
import { brandOfPage } from '@/app/server/brand';
import { maybeRunningImport } from '@/usecases/exchange/longImport';
import { BringIn } from './BringIn';
import { SettingsFile } from './SettingsFile';

export const metadata: Metadata = { title: 'Import and export' };

/** Brings posts in from a CSV file, and takes them out as CSV or iCalendar. */
export default async function ExchangePage({ params }: { params: Promise<{ brand: string }> }) {
  const { app, brand, may } = await brandOfPage((await params).brand);
  if (!may('exchange')) return <NotForYou deed="exchange" />;
  const running = await maybeRunningImport(app, brand.id);
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
          , for other calendars. To export only what a filter shows, use “Saved views” on the calendar.
        </p>
      </section>
      <section>
        <h2>Import</h2>
        <BringIn running={running ?? null} />
      </section>
      {may('manageBrand') && (
        <section>
          <h2>Settings of {brand.name}</h2>
          <p>
            Shelf, names, rhythms, rule sheets, prep sheets and fan-outs{' '}
            <a href={`/api/settings/file?brand=${brand.slug}`} download>
              as JSON
            </a>
            , to keep or to import into another brand.
          </p>
          <SettingsFile />
        </section>
      )}
    </>
  );
}
