import Link from 'next/link';
import { notFound } from 'next/navigation';
import type { AcceptedPost } from '@/standins/network/store';
import { askNetworks, Board, networkOf, Published } from '../../board';

/** One published post on the page of its made-up network. */
export default async function PublishedPage({ params }: { params: Promise<{ network: string; id: string }> }) {
  const { network, id } = await params;
  if (!networkOf(network)) notFound();
  const post = await askNetworks<AcceptedPost>(`/networks/${network}/posts/${encodeURIComponent(id)}`);
  return (
    <Board slug={network}>
      {post ? (
        <Published post={post} chosen />
      ) : (
        <p className="soft">This post is not here, or the networks are not running.</p>
      )}
      <Link href={`/standins/${network}`} prefetch={false}>
        everything on {networkOf(network)!.name}
      </Link>
    </Board>
  );
}
