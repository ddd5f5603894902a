import type { Metadata } from 'next';
import { brandOfPage } from '@/app/server/brand';
import { isMailReal } from '@/runtime/mailer';
import { loadWays } from '@/usecases/notices/ways';
import { loadNotices } from '@/usecases/notices/notices';
import { NoticeList } from './NoticeList';

export const metadata: Metadata = { title: 'Notices' };

/** What whoever looks has been told of, in all brands that they work for. */
export default async function NoticesPage({ params }: { params: Promise<{ brand: string }> }) {
  const { db, me } = await brandOfPage((await params).brand);
  const [notices, ways] = await Promise.all([loadNotices(db, me.id), loadWays(db, me.id)]);
  return <NoticeList notices={notices} ways={ways} zone={me.zone} hasMailbox={!isMailReal()} />;
}
