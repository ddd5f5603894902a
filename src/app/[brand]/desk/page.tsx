import type { Metadata } from 'next';
import { brandOfPage } from '@/app/server/brand';
import { loadDesk } from '@/usecases/desk';
import { DeskScreen } from './DeskScreen';

export const metadata: Metadata = { title: 'Desk' };

/** The desk: what leaves, what is not ready though near, and the gaps ahead. */
export default async function DeskPage({ params }: { params: Promise<{ brand: string }> }) {
  const { db, brand, channels, today, now } = await brandOfPage((await params).brand);
  return (
    <DeskScreen
      desk={await loadDesk(db, brand, channels, now)}
      today={today}
      aims={Object.fromEntries(channels.map(({ id, aimDays }) => [id, aimDays]))}
    />
  );
}
