import type { Metadata } from 'next';
import { brandOfPage } from '@/app/server/brand';
import { listDateFiles } from '@/usecases/calendar/reading';
import { DateFiles } from './DateFiles';

export const metadata: Metadata = { title: 'Known dates' };

/** The files of dates to plan around. */
export default async function DatesPage({ params }: { params: Promise<{ brand: string }> }) {
  const { db, brand } = await brandOfPage((await params).brand);
  return <DateFiles files={await listDateFiles(db, brand.id)} />;
}
