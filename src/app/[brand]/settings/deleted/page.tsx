import type { Metadata } from 'next';
import { NotForYou } from '../NotForYou';
import { brandOfPage } from '@/app/server/brand';
import { listChannelsOf } from '@/usecases/brands/reading';
import { loadDeletedPosts } from '@/usecases/posts/deleted';
import { DeletedPosts } from './DeletedPosts';

export const metadata: Metadata = { title: 'Deleted posts' };

/** The posts of a brand that were deleted in the last 30 days. */
export default async function DeletedPage({ params }: { params: Promise<{ brand: string }> }) {
  const { db, brand, now, may } = await brandOfPage((await params).brand);
  if (!may('changePosts')) return <NotForYou deed="changePosts" />;
  const [posts, channels] = await Promise.all([
    loadDeletedPosts(db, brand.id, now),
    listChannelsOf(db, [brand.id], { archived: true }),
  ]);
  return (
    <DeletedPosts
      posts={posts}
      channels={channels.map(({ id, name, callSign, color }) => ({ id, name, callSign, color }))}
    />
  );
}
