import type { Metadata } from 'next';
import { NotForYou } from '../NotForYou';
import { brandOfPage } from '@/app/server/brand';
import { fanOutKey, listSettingVersions } from '@/usecases/brands/reading';
import { listFanOuts } from '@/usecases/fanOut/fanOuts';
import { FanOutSettings } from './FanOutSettings';

export const metadata: Metadata = { title: 'Fan-outs' };

/** The plans that turn one piece into posts: the shipped ones as the brand wants them, and its own. */
export default async function FanOutsPage({ params }: { params: Promise<{ brand: string }> }) {
  const { db, brand, may } = await brandOfPage((await params).brand);
  if (!may('manageBrand')) return <NotForYou deed="manageBrand" />;
  const fanOuts = await listFanOuts(db, brand.id);
  const keyOf = ({ slug }: { slug: string }) => fanOutKey(brand.id, slug);
  const versions = await listSettingVersions(db, 'fan-out', fanOuts.map(keyOf));
  return (
    <FanOutSettings
      key={brand.id}
      fanOuts={fanOuts.map((one) => ({ ...one, version: versions.get(keyOf(one)) ?? 0 }))}
    />
  );
}
