import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { brandOfPage } from '@/app/server/brand';
import { loadChannelStrip } from '@/usecases/media/loadChannelStrip';
import { ChannelStrip } from './ChannelStrip';

export const metadata: Metadata = { title: 'Look of a channel' };

/** The pictures of a channel in the order they are seen. */
export default async function StripPage({ params }: { params: Promise<{ brand: string; channel: string }> }) {
  const { brand: slug, channel: sign } = await params;
  const { db, channels, today } = await brandOfPage(slug);
  const channel = channels.find(({ callSign }) => callSign === sign.toUpperCase()) ?? notFound();
  return <ChannelStrip channel={channel} frames={await loadChannelStrip(db, channel, today)} today={today} />;
}
