import type { Metadata } from 'next';
import { readDate } from '@/core/time/plan';
import { brandOfPage } from '@/app/server/brand';
import { loadMonth, loadSheet, loadTray } from '@/usecases/views';
import { CalendarScreen } from './CalendarScreen';

export const metadata: Metadata = { title: 'Calendar' };

interface Props {
  params: Promise<{ brand: string }>;
  searchParams: Promise<{ date?: string; post?: string }>;
}

/** The calendar of a brand in the month that holds `?date=`, with the post `?post=` open. */
export default async function CalendarPage({ params, searchParams }: Props) {
  const { db, brand, channels, today } = await brandOfPage((await params).brand);
  const query = await searchParams;
  const asked = readDate(query.date ?? '');
  const month = `${(asked.ok ? asked.value : today).slice(0, 7)}-01`;
  const openId = /^[0-9a-f-]{36}$/.test(query.post ?? '') ? query.post : undefined;
  const [{ weeks, slips }, tray, sheet] = await Promise.all([
    loadMonth(db, brand, channels, month),
    loadTray(db, brand, channels),
    openId ? loadSheet(db, openId) : undefined,
  ]);
  return (
    <CalendarScreen
      month={month}
      today={today}
      weeks={weeks}
      slips={[...slips, ...tray.undated]}
      ideas={tray.ideas}
      openSheet={sheet && !sheet.deleted ? sheet : null}
    />
  );
}
