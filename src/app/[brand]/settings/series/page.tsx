import type { Metadata } from 'next';
import { NotForYou } from '../NotForYou';
import { brandOfPage } from '@/app/server/brand';
import { listSeries } from '@/usecases/rhythm/reading';
import { listSettingVersions } from '@/usecases/brands/reading';
import { SeriesList } from './SeriesList';

export const metadata: Metadata = { title: 'Series' };

/** The series of a brand: recurring themes that make their next posts ahead. */
export default async function SeriesPage({ params }: { params: Promise<{ brand: string }> }) {
  const { db, brand, today, may } = await brandOfPage((await params).brand);
  if (!may('runSeries')) return <NotForYou deed="runSeries" />;
  const series = await listSeries(db, brand.id);
  const versions = await listSettingVersions(
    db,
    'series',
    series.map(({ id }) => id),
  );
  return <SeriesList series={series.map((one) => ({ ...one, version: versions.get(one.id) ?? 0 }))} today={today} />;
}
