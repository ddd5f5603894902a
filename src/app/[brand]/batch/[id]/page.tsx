import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { listBatchSteps, maybeBatchDay } from '@/usecases/prep/reading';
import { brandOfPage } from '@/app/server/brand';
import { isId } from '@/app/server/request';
import { BatchDayScreen } from './BatchDayScreen';

export const metadata: Metadata = { title: 'Batch day' };

/** A batch day: its running order, and what is needed for it. */
export default async function BatchDayPage({ params }: { params: Promise<{ brand: string; id: string }> }) {
  const { brand: slug, id } = await params;
  const { db, brand } = await brandOfPage(slug);
  const batch = isId(id) ? await maybeBatchDay(db, id) : undefined;
  if (!batch || batch.brandId !== brand.id) notFound();
  return <BatchDayScreen batch={batch} steps={await listBatchSteps(db, id)} />;
}
