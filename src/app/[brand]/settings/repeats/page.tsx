import type { Metadata } from 'next';
import { brandOfPage } from '@/app/server/brand';
import { loadRepeats } from '@/usecases/repeats/reading';
import { NotForYou } from '../NotForYou';
import { RepeatList } from './RepeatList';

export const metadata: Metadata = { title: 'Repeats' };

/** What comes again by itself for a brand: series, evergreen and seasonal work. */
export default async function RepeatsPage({ params }: { params: Promise<{ brand: string }> }) {
  const { db, brand, today, may } = await brandOfPage((await params).brand);
  if (!may('runRepeats')) return <NotForYou deed="runRepeats" />;
  return <RepeatList repeats={await loadRepeats(db, brand.id, today)} />;
}
