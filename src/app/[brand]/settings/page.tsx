import type { Metadata } from 'next';
import Link from 'next/link';
import { NotForYou } from './NotForYou';
import { brandOfPage } from '@/app/server/brand';
import { listDaysOff } from '@/usecases/rhythm/reading';
import { listSettingVersions } from '@/usecases/brands/reading';
import { BrandForm } from './BrandForm';

export const metadata: Metadata = { title: 'Brand settings' };

/** A brand's zone, week and days off; and a place to make another brand. */
export default async function BrandSettings({ params }: { params: Promise<{ brand: string }> }) {
  const { db, brand, may } = await brandOfPage((await params).brand);
  if (!may('manageBrand')) return <NotForYou deed="manageBrand" />;
  const [daysOff, versions] = await Promise.all([
    listDaysOff(db, brand.id),
    listSettingVersions(db, 'brand', [brand.id]),
  ]);
  return (
    <div className="two-columns">
      <section>
        <h2>{brand.name}</h2>
        <BrandForm brand={brand} daysOff={daysOff} version={versions.get(brand.id) ?? 0} />
      </section>
      <section>
        <h2>Another brand</h2>
        <p className="soft">It has its own channels, people, rhythm and zone.</p>
        <Link className="btn btn-outline" href="/begin" prefetch={false}>
          New brand…
        </Link>
      </section>
    </div>
  );
}
