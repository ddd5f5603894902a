import type { Metadata } from 'next';
import { brandOfPage } from '@/app/server/brand';
import { listSettingVersions } from '@/usecases/brands/reading';
import { loadWritingService } from '@/usecases/writing/service';
import { NotForYou } from '../NotForYou';
import { WritingSettings } from './WritingSettings';

export const metadata: Metadata = { title: 'Writing service' };

/** The service of the team's own that may write drafts, if it has one. */
export default async function WritingPage({ params }: { params: Promise<{ brand: string }> }) {
  const { db, brand, may } = await brandOfPage((await params).brand);
  if (!may('manageBrand')) return <NotForYou deed="manageBrand" />;
  const [service, versions] = await Promise.all([
    loadWritingService(db, brand.id),
    listSettingVersions(db, 'writing service', [brand.id]),
  ]);
  return <WritingSettings key={brand.id} service={service} version={versions.get(brand.id) ?? 0} />;
}
