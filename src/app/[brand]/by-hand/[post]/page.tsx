import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { brandOfPage } from '@/app/server/brand';
import { loadDeparture } from '@/usecases/delivery/loadDepartures';
import { ByHandScreen } from './ByHandScreen';

export const metadata: Metadata = { title: 'Post by hand' };

/** One post to be posted by hand, for a phone: where a notice and a mail lead. */
export default async function ByHandPage({ params }: { params: Promise<{ brand: string; post: string }> }) {
  const { brand: slug, post } = await params;
  const { db, brand, now } = await brandOfPage(slug);
  const departure = /^[0-9a-f-]{36}$/.test(post) ? await loadDeparture(db, brand, post, now) : null;
  return <ByHandScreen departure={departure ?? notFound()} now={now} />;
}
