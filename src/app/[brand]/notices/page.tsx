import type { Metadata } from 'next';
import { brandOfPage } from '@/app/server/brand';
import { isMailReal } from '@/runtime/mailer';
import { loadFeeds } from '@/usecases/feeds/feeds';
import { loadWays, mailTrouble } from '@/usecases/notices/ways';
import { loadNotices } from '@/usecases/notices/notices';
import { NoticeList } from './NoticeList';

export const metadata: Metadata = { title: 'Notices' };

/** What whoever looks has been told of, in all brands that they work for. */
export default async function NoticesPage({ params }: { params: Promise<{ brand: string }> }) {
  const { db, me, brands } = await brandOfPage((await params).brand);
  const [notices, ways, feeds, trouble] = await Promise.all([
    loadNotices(db, me.id),
    loadWays(db, me.id),
    loadFeeds(db, me.id),
    mailTrouble(db, me.id),
  ]);
  const listed = feeds.map(({ id, brandId, madeAt, usedAt }) => ({
    ...{ id, madeAt, usedAt },
    brand: brandId === null ? null : (brands.find((brand) => brand.id === brandId)?.name ?? 'another brand'),
  }));
  return (
    <NoticeList
      notices={notices}
      ways={ways}
      mailTrouble={trouble}
      feeds={listed}
      zone={me.zone}
      hasMailbox={!isMailReal()}
    />
  );
}
