import type { Metadata } from 'next';
import { brandOfPage } from '@/app/server/brand';
import { loadNotices } from '@/usecases/notices/notices';
import { NoticeList } from './NoticeList';

export const metadata: Metadata = { title: 'Notices' };

/** What whoever looks has been told of, in all brands that they work for. */
export default async function NoticesPage({ params }: { params: Promise<{ brand: string }> }) {
  const { db, me } = await brandOfPage((await params).brand);
  return <NoticeList notices={await loadNotices(db, me.id)} />;
}
