import type { Metadata } from 'next';
import { WORKS } from '@/core/prep/step';
import { addDays } from '@/core/time/days';
import { listStepsForBatch } from '@/usecases/prep/reading';
import { brandOfPage } from '@/app/server/brand';
import { PlanBatchDay } from './PlanBatchDay';

export const metadata: Metadata = { title: 'Plan a batch day' };

/** Steps of one sort (`?work=`, recording first) to be done in one sitting. */
export default async function NewBatchPage({
  params,
  searchParams,
}: {
  params: Promise<{ brand: string }>;
  searchParams: Promise<{ work?: string }>;
}) {
  const { db, brand, today } = await brandOfPage((await params).brand);
  const { work: asked } = await searchParams;
  const work = WORKS.find((one) => one === asked) ?? 'recording';
  return <PlanBatchDay work={work} steps={await listStepsForBatch(db, brand.id, work)} tomorrow={addDays(today, 1)} />;
}
