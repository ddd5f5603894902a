import { notFound } from 'next/navigation';
import { brandOfPage } from '@/app/server/brand';
import { loadMonth } from '@/usecases/views';
import { CalendarScreen } from '../calendar/CalendarScreen';

interface Props {
  params: Promise<{ brand: string }>;
  searchParams: Promise<{ date?: string }>;
}

let kept: Awaited<ReturnType<typeof loadMonth>> | undefined;

/** The calendar drawn from slips that were read once: the floor that the benchmark holds the real page against. */
export default async function ConstantCalendar({ params, searchParams }: Props) {
  if (process.env.BIMLO_BENCH !== '1') notFound();
  const { db, brand, channels, today } = await brandOfPage((await params).brand);
  const month = `${((await searchParams).date ?? today).slice(0, 7)}-01`;
  kept ??= await loadMonth(db, brand, channels, month);
  return (
    <CalendarScreen month={month} today={today} weeks={kept.weeks} slips={kept.slips} ideas={[]} openSheet={null} />
  );
}
