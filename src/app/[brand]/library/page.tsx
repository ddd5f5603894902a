import type { Metadata } from 'next';
import { LIBRARY_PAGE } from '@/core/media/libraryPage';
import { brandOfPage } from '@/app/server/brand';
import { listLibrary } from '@/usecases/media/reading';
import { LibraryScreen } from './LibraryScreen';

export const metadata: Metadata = { title: 'Library' };

/** The pictures and videos of a brand. */
export default async function LibraryPage({ params }: { params: Promise<{ brand: string }> }) {
  const { db, brand } = await brandOfPage((await params).brand);
  return <LibraryScreen key={brand.id} first={await listLibrary(db, brand.id, '', null, LIBRARY_PAGE)} />;
}
