import { notFound } from 'next/navigation';
import { brandOfPage } from '@/app/server/brand';

/** An address of a brand that is none: said inside the shell. */
export default async function Nowhere({ params }: { params: Promise<{ brand: string }> }) {
  await brandOfPage((await params).brand);
  notFound();
}
