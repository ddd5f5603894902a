import type { Metadata } from 'next';
import { brandOfPage } from '@/app/server/brand';
import { loadSetAside } from '@/usecases/delivery/setAside';
import { SetAsideList } from './SetAsideList';

export const metadata: Metadata = { title: 'Set aside' };

/** What was set aside and never went out, by month, all of it or for one reason (`?reason=`). */
export default async function SetAsidePage({
  params,
  searchParams,
}: {
  params: Promise<{ brand: string }>;
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  const { db, brand } = await brandOfPage((await params).brand);
  const { reason } = await searchParams;
  const asked = typeof reason === 'string' ? reason : null;
  return <SetAsideList setAside={await loadSetAside(db, brand.id, asked)} reason={asked} />;
}
