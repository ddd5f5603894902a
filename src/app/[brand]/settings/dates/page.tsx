import type { Metadata } from 'next';
import { NotForYou } from '../NotForYou';
import { brandOfPage } from '@/app/server/brand';
import { listDateFiles } from '@/usecases/calendar/reading';
import { DateFiles } from './DateFiles';

export const metadata: Metadata = { title: 'Known dates' };

/** The files of dates to plan around. */
export default async function DatesPage({ params }: { params: Promise<{ brand: string }> }) {
  const { db, brand, may } = await brandOfPage((await params).brand);
  if (!may('keepKnownDates')) return <NotForYou deed="keepKnownDates" />;
  return <DateFiles files={await listDateFiles(db, brand.id)} />;
}
