import { notFound } from 'next/navigation';
import type { AcceptedPost } from '@/standins/network/store';
import { askNetworks, Board, networkOf, Published } from '../board';

/** The page of a made-up network: what it published, newest first. */
export default async function NetworkPage({ params }: { params: Promise<{ network: string }> }) {
  const { network } = await params;
  if (!networkOf(network)) notFound();
  const posts = await askNetworks<AcceptedPost[]>(`/networks/${network}/posts`);
  return (
    <Board slug={network}>
      {posts === undefined && <p className="wrong">The made-up networks are not running.</p>}
      {posts?.length === 0 && <p className="soft">Nothing was published here yet.</p>}
      {posts?.map((post) => (
        <Published key={post.id} post={post} />
      ))}
    </Board>
  );
}
