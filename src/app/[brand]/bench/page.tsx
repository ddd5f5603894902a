import { notFound } from 'next/navigation';
import { brandOfPage } from '@/app/server/brand';
import { brandsOfCalendar } from '@/app/server/calendar';
import { NO_FILTER } from '@/core/calendar/filter';
import { loadCalendar, type CalendarView } from '@/usecases/calendar/loadCalendar';
import { CalendarScreen } from '../calendar/CalendarScreen';

interface Props {
  params: Promise<{ brand: string }>;
  searchParams: Promise<{ date?: string }>;
}

let kept: CalendarView | undefined;

/** The calendar drawn from slips that were read once: the floor that the benchmark holds the real page against. */
export default async function ConstantCalendar({ params, searchParams }: Props) {
  if (process.env.BIMLO_BENCH !== '1') notFound();
  const page = await brandOfPage((await params).brand);
  const { db, channels, brand, today, now } = page;
  const date = `${((await searchParams).date ?? today).slice(0, 7)}-01`;
  const ask = { arrangement: 'month', date, weeks: 1, filter: NO_FILTER } as const;
  kept ??= await loadCalendar(db, [brand], channels, ask, now);
  return (
    <CalendarScreen
      asked={ask}
      today={today}
      now="12:00"
      view={{ ...kept, ideas: [] }}
      brandsShown={await brandsOfCalendar(page, null)}
      savedViews={[]}
      openSheet={null}
    />
  );
}
