import type { Metadata } from 'next';
import { brandOfPage } from '@/app/server/brand';
import { loadEncores } from '@/usecases/encores/loadEncores';
import { EncoresScreen } from './EncoresScreen';

export const metadata: Metadata = { title: 'Encores' };

/** Published posts that are worth doing again. */
export default async function EncoresPage({ params }: { params: Promise<{ brand: string }> }) {
  const { db, brand, now } = await brandOfPage((await params).brand);
  return <EncoresScreen encores={await loadEncores(db, brand, now)} minDays={brand.encoreDays} />;
}
