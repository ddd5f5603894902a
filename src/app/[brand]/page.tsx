import { redirect } from 'next/navigation';
import { brandOfPage } from '@/app/server/brand';

/** The address of a brand alone opens its calendar. */
export default async function BrandHome({ params }: { params: Promise<{ brand: string }> }) {
  const { brand } = await brandOfPage((await params).brand);
  redirect(`/${brand.slug}/calendar`);
}
