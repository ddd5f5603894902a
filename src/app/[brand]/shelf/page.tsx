import type { Metadata } from 'next';
import { brandOfPage } from '@/app/server/brand';
import { loadShelf } from '@/usecases/shelf/shelf';
import { ShelfScreen } from './ShelfScreen';

export const metadata: Metadata = { title: 'Shelf' };

/** What is used again and again: to be put into texts, people and places to name, and the brand sheet. */
export default async function ShelfPage({ params }: { params: Promise<{ brand: string }> }) {
  const { db, brand } = await brandOfPage((await params).brand);
  return <ShelfScreen key={brand.id} shelf={await loadShelf(db, brand.id)} />;
}
